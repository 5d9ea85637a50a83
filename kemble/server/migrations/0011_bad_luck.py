"""Tries at a password are counted against the account, the browser and the address."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('kitchen', '0010_household'),
    ]

    operations = [
        migrations.AddField(
            model_name='kitchenrecord',
            name='staged',
            field=models.DateTimeField(default=None, null=True),
        ),
        migrations.DeleteModel(name='Try'),
        migrations.CreateModel(
            name='PasswordAttempt',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('account', models.CharField(db_index=True, max_length=64)),
                ('browser', models.CharField(max_length=32)),
                ('address', models.CharField(max_length=60)),
                ('on_own_browser', models.BooleanField()),
                ('at', models.DateTimeField()),
            ],
        ),
    ]
