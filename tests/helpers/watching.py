"""What goes wrong in a page while a test drives it. Anything from outside counts."""


def watching(page):
    """A list that fills with whatever goes wrong in the page from here on."""
    wrong = []
    page.on("pageerror", lambda error: wrong.append(f"error: {error}"))
    page.on("console", lambda message: wrong.append(f"console: {message.text}") if is_wrong(message) else None)
    page.on("response", lambda answer: wrong.append(f"{answer.status}: {answer.url}") if is_fault(answer) else None)
    page.on("request", lambda request: wrong.append(f"outside: {request.url}") if is_outside(request.url) else None)
    return wrong


def is_wrong(message):
    """An answer's status is looked at in the answer itself."""
    return (
        message.type == "error"
        and "the server responded with a status of" not in message.text
        and "net::ERR_" not in message.text
    )


def is_fault(answer):
    """A refusal is an answer; so is "ask again" without a word more, which a server says that is being stopped."""
    if answer.status < 500:
        return False
    return not (answer.status == 503 and answer.headers.get("content-length") == "0")


def is_outside(url):
    return not url.startswith(("http://127.0.0.1:", "data:", "blob:"))
