"""Who may come in: sign-in keys, passwords, second factors, browsers, roles and the household."""
