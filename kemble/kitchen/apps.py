from django.apps import AppConfig


class KitchenConfig(AppConfig):
    name = "kemble.kitchen"
    label = "kitchen"
