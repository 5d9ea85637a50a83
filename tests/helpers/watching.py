"""What goes wrong in a page while a test drives it. Anything from outside counts."""


def watching(page):
    """A list that fills with whatever goes wrong in the page from here on."""
    wrong = []
    page.on("pageerror", lambda error: wrong.append(f"error: {error}"))
    page.on("console", lambda message: wrong.append(f"console: {message.text}") if is_wrong(message) else None)
    page.on("request", lambda request: wrong.append(f"outside: {request.url}") if is_outside(request.url) else None)
    return wrong


# A refusal is an answer; so is "ask again" (503), which a server says that is being stopped.
EXPECTED = ("status of 4", "status of 503", "net::ERR_")


def is_wrong(message):
    return message.type == "error" and not any(text in message.text for text in EXPECTED)


def is_outside(url):
    return not url.startswith(("http://127.0.0.1:", "data:", "blob:"))
