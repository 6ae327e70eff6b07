"""Who made a link, and against which password. Links still open from before cannot be checked when used: ways to a new password
are taken back; invitations stay where the one who made them can be told by name, and are taken back where not."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models
from django.utils import timezone


def of_before(apps, schema_editor):
    link, membership = apps.get_model("people", "Link"), apps.get_model("workshops", "Membership")
    for each in link.objects.filter(used_at=None, withdrawn_at=None):
        owners = membership.objects.filter(workshop=each.workshop_id, role="owner", shown_name=each.made_by_name)
        if each.kind == "join" and owners.count() == 1:
            each.made_by_id = owners.get().user_id
        else:
            each.withdrawn_at = timezone.now()
        each.save()


class Migration(migrations.Migration):
    dependencies = [
        ("people", "0001_initial"),
        ("audit", "0003_links_of_whom"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]
    operations = [
        migrations.AddField(
            "link",
            "made_by",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="+", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.AddField("link", "password_digest", models.CharField(blank=True, max_length=64)),
        migrations.RunPython(of_before, migrations.RunPython.noop),
    ]
