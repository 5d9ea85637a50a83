from django.apps import AppConfig


class KitchenConfig(AppConfig):
    name = "kemble.server"
    label = "kitchen"
