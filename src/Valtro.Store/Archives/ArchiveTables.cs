namespace Valtro.Store.Archives;

/// <summary>A table that an archive of an organisation holds.</summary>
/// <param name="Name">Of its file, too.</param>
/// <param name="Says">What stands in it.</param>
/// <param name="Which">Its rows, as a condition on the table; null for those of the organisation.</param>
internal sealed record ArchiveTable(string Name, string Says, string? Which = null)
{
    /// <summary>Columns that stay behind, and what stands in their place elsewhere, in SQL.</summary>
    public IReadOnlyDictionary<string, string> Behind { get; init; } = new Dictionary<string, string>();

    /// <summary>A column that is a file of its own, named by the row's id.</summary>
    public string? FileColumn { get; init; }
}

/// <summary>What an archive of an organisation holds, and what stays behind and why: every table of the database is here once.</summary>
internal static class ArchiveTables
{
    private const string RandomText = "replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', '')";

    /// <summary>A sealed access opens with the key of the operator that it was sealed with, and no other.</summary>
    private static readonly Dictionary<string, string> Sealed = new() { ["access"] = @"'\x'::bytea" };

    public static IReadOnlyList<ArchiveTable> Kept { get; } =
    [
        new("organisation", "The organisation: address, name, zone, language.", "t.id = @id"),
        new("account", "People that belong to it, belonged to it, or wrote something: address, name, language.", "t.id = any(@accounts)")
        {
            Behind = new Dictionary<string, string>
            {
                ["password_hash"] = "null",
                ["security_stamp"] = RandomText,
                ["last_sign_in_at"] = "null",
                ["reset_mailed_at"] = "null",
            },
        },
        new("membership", "Who belongs to it, who administers it, and since when no more."),
        new("category", "Categories, those that were merged or are not offered any more among them."),
        new("place", "Places and their parts."),
        new("file", "Files of events, pictures of places; what is in each stands in files/ by its id.") { FileColumn = "content" },
        new("year_plan", "School years."),
        new("year_plan_span", "Terms, breaks and days of a year.",
            "t.year_plan_id in (select id from year_plan where organisation_id = @id)"),
        new("source", "Followed sources, what each said last; not how it is asked.") { Behind = Sealed },
        new("calendar", "Calendars: plates, colours, who sees how much; archived and removed ones too."),
        new("calendar_role", "Who may do what on a calendar."),
        new("calendar_group", "Groups of calendars."),
        new("calendar_group_member", "What belongs to a group."),
        new("event", "Events, those in the bin too; \"content\" is the document, \"extra\" and the columns beside it are read by no program any more."),
        new("event_exception", "Dates of series that were kept apart once; \"content\" of the event has them."),
        new("event_reference", "What events name: categories, places, files, people."),
        new("placement", "Further calendars on which events are shown."),
        new("revision", "All that events were, by whom and when."),
        new("submission", "Changes that were handed in, and what became of each."),
        new("event_template", "Templates."),
        new("plan_view", "Saved views of the plan."),
        new("edition", "Editions, the standard ones among them."),
        new("edition_source", "Calendars of editions."),
        new("edition_calendar_name", "What addresses of editions called their calendars."),
        new("secret_link", "Secret addresses, members' own among them: whoever has the archive has them."),
        new("outward_name", "UIDs under which events went out."),
        new("delivered", "What went out last: stamps and sequence numbers go on from there."),
        new("delivery", "Which programs fetched lately, as digests."),
        new("foreign_name", "What others call events that came from them, and how they said them."),
        new("source_choice", "What somebody said of single entries of a source."),
        new("source_fetch", "How sources went lately."),
        new("intake_guess", "How columns of sheets were read."),
        new("push_target", "Calendars elsewhere that are written; not how each is asked.") { Behind = Sealed },
        new("push_choice", "What is chosen to be written there."),
        new("push_object", "What was written there."),
        new("audit", "Who did what that concerns others."),
    ];

    /// <summary>With the reason.</summary>
    public static IReadOnlyDictionary<string, string> LeftBehind { get; } = new Dictionary<string, string>
    {
        ["app_password"] = "Passwords stay where they were made.",
        ["artefact"] = "Is rendered anew.",
        ["asked_once"] = "Concerns requests of the last hours.",
        ["data_protection_key"] = "Keys of the server.",
        ["dav_snapshot"] = "Programs ask anew.",
        ["edition_draft"] = "Lasts a day.",
        ["event_word"] = "Is made from the documents of events.",
        ["failed_sign_in"] = "Of the server.",
        ["house"] = "Counts how often settings were changed, and begins anew.",
        ["intake"] = "Files that somebody is still looking at are theirs alone.",
        ["intake_line"] = "Belongs to such a file.",
        ["invitation"] = "Its link leads to the old server: who has not come yet is invited anew.",
        ["invitation_role"] = "Belongs to an invitation.",
        ["mail"] = "Mail that was not sent yet is sent from the old server.",
        ["notice"] = "Is mailed from the old server.",
        ["schemaversions"] = "Of the database; archive.json names the last.",
        ["search_word"] = "Is made from the words of events.",
        ["session"] = "Everybody signs in anew.",
        ["work"] = "Is wished for anew.",
    };
}
