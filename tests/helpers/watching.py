"""What goes wrong in a page while a test drives it. Anything from outside counts."""


def watching(page):
    """A list that fills with whatever goes wrong in the page from here on."""
    wrong = []
    page.on("pageerror", lambda error: wrong.append(f"error: {error}"))
    page.on("console", lambda message: wrong.append(f"console: {message.text}") if is_wrong(message) else None)
    page.on("request", lambda request: wrong.append(f"outside: {request.url}") if is_outside(request.url) else None)
    return wrong


def is_wrong(message):
    return message.type == "error" and "status of 4" not in message.text and "net::ERR_" not in message.text


def is_outside(url):
    return not url.startswith(("http://127.0.0.1:", "data:", "blob:"))
