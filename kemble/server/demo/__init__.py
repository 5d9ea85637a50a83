"""The demo kitchen: Weir House, which makes tea for the Saturday mending circle."""
