"""What a link is checked against is not written into the trail."""

from django.db import migrations


def _trigger(but):
    return (
        "drop trigger audit_write on people_link; "
        "create trigger audit_write after insert or update or delete on people_link "
        f"for each row execute function audit_write('link', 'shown_name,kind', '{but}');"
    )


class Migration(migrations.Migration):
    dependencies = [("audit", "0002_followed")]
    operations = [
        migrations.RunSQL(
            _trigger("id,workshop_id,digest,user_id,made_by_id,password_digest"), _trigger("id,workshop_id,digest,user_id")
        )
    ]
