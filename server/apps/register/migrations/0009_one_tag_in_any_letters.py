"""Tags that differ by capitals only become tags apart: the drum entered first keeps its own. Said on the way and in each drum's history."""

from django.db import migrations
from django.utils import timezone

from apps.workshops.scope import enter_workshop

LONGEST = 20


def another(tag, taken):
    number = 2
    while True:
        end = f"-{number}"
        made = f"{tag[: LONGEST - len(end)]}{end}"
        if made.casefold() not in taken:
            return made
        number += 1


def tell_apart(apps, schema_editor):
    drums, history = apps.get_model("register", "Drum"), apps.get_model("history", "LogEntry")
    for workshop in apps.get_model("workshops", "Workshop").objects.order_by("pk"):
        enter_workshop(workshop.pk)
        taken, first = {}, {}
        rows = list(drums.objects.filter(workshop=workshop.pk).order_by("pk"))
        taken = {drum.tag.casefold() for drum in rows}
        for drum in rows:
            if drum.tag.casefold() not in first:
                first[drum.tag.casefold()] = drum.tag
                continue
            was, kept = drum.tag, first[drum.tag.casefold()]
            drum.tag = another(was, taken)
            taken.add(drum.tag.casefold())
            drum.search = f"{drum.tag.lower()} {drum.search}"[:400]
            drum.save(update_fields=["tag", "search"])
            text = f"Its tag was {was}, and another drum’s is {kept}: tags differ by more than capitals now. It is {drum.tag}; write it on its label"
            history.objects.create(
                workshop_id=workshop.pk, drum_id=drum.pk, at=timezone.now(), kind="register", text=text, by_name=""
            )
            print(f"  {workshop.name}: {was} ({drum.name}) is {drum.tag} now; {kept} keeps its tag.")


class Migration(migrations.Migration):
    dependencies = [
        ("register", "0008_kits_wish"),
        ("history", "0004_left_so"),
        ("audit", "0002_followed"),
    ]
    operations = [migrations.RunPython(tell_apart, migrations.RunPython.noop)]
