"""A household in roles. Whoever was in a kitchen before is its owner."""

import django.db.models.deletion
import django.utils.timezone
from django.conf import settings
from django.db import migrations, models


def owners(apps, schema_editor):
    """Everybody who was in a kitchen, in the first of theirs: they worked in no other."""
    kitchens = apps.get_model('kitchen', 'KitchenRecord').objects.using(schema_editor.connection.alias)
    members = apps.get_model('kitchen', 'Member').objects.using(schema_editor.connection.alias)
    for kitchen in kitchens.order_by('id'):
        for user in kitchen.members.all():
            members.get_or_create(user_id=user.pk, defaults={'kitchen': kitchen, 'role': 'owner'})


class Migration(migrations.Migration):

    dependencies = [
        ('kitchen', '0009_browsers'),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='Invitation',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('digest', models.CharField(max_length=64, unique=True)),
                ('name', models.CharField(max_length=40)),
                ('role', models.CharField(max_length=12)),
                ('made', models.DateTimeField(default=django.utils.timezone.now)),
                ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='invitations', to='kitchen.kitchenrecord')),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.CreateModel(
            name='Member',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('role', models.CharField(max_length=12)),
                ('since', models.DateTimeField(default=django.utils.timezone.now)),
                # by no name while the field of old has it
                ('kitchen', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='kitchen.kitchenrecord')),
                ('user', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='member', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'ordering': ['id'],
            },
        ),
        migrations.RunPython(owners, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name='kitchenrecord',
            name='members',
        ),
        migrations.AlterField(
            model_name='member',
            name='kitchen',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='members', to='kitchen.kitchenrecord'),
        ),
    ]
