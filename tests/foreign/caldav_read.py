"""What python3-caldav (Debian) reads of a server: as JSON on standard output."""
import datetime
import json
import sys

import caldav

address, user, password, name, first, last = sys.argv[1:]
client = caldav.DAVClient(address, username=user, password=password)
calendars = client.principal().calendars()
chosen = next(one for one in calendars if one.name == name)
days = [datetime.datetime.fromisoformat(day) for day in (first, last)]
found = chosen.date_search(*days, expand=False)
synced = chosen.objects(load_objects=True)
refused = []
for act in (
    lambda: chosen.save_event(found[0].data.replace("UID:", "UID:x")),
    lambda: found[0].delete(),
):
    try:
        act()
    except caldav.lib.error.AuthorizationError as error:
        refused.append(type(error).__name__)
changed, gone = synced.sync()
print(
    json.dumps(
        {
            "calendars": sorted(one.name for one in calendars),
            "found": sorted(str(one.vobject_instance.vevent.summary.value) for one in found),
            "all": len(chosen.events()),
            "synced": len(list(synced)),
            "changedSince": len(list(changed)) + len(list(gone)),
            "refused": refused,
            "busy": chosen.freebusy_request(*days).data.count("FREEBUSY:"),
        }
    )
)
