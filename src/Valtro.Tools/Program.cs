using System.CommandLine;
using Valtro;
using Valtro.Tools;
using Valtro.Tools.Archives;
using Valtro.Tools.Backups;

// The command line behind ./valtro.
var root = new RootCommand("Valtro's tools");

var expand = new Command("expand", "Reads recurrence questions as JSON lines on standard input and writes an answer line for each.");
expand.SetAction(_ => ExpandCommand.Run(Console.In, Console.Out));
root.Subcommands.Add(expand);

var database = new Option<string>("--database") { Description = "The database, in Npgsql's form.", Required = true };
var seed = new Command("seed", "Migrates the database and fills it with the demo data when it is empty.");
seed.Options.Add(database);
var large = new Option<bool>("--large") { Description = "The demo of a large school." };
seed.Options.Add(large);
var standIns = new Option<string?>("--stand-ins") { Description = "Where the outside world publishes what the demo follows." };
seed.Options.Add(standIns);
var key = new Option<string?>("--key") { Description = "The file of the key that seals how it is asked." };
seed.Options.Add(key);
seed.SetAction(
    (parsed, _) => SeedCommand.RunAsync(parsed.GetRequiredValue(database), parsed.GetValue(large),
        parsed.GetValue(standIns) is { } address ? new Uri(address) : null,
        parsed.GetValue(key), OneClock.From(Environment.GetEnvironmentVariable(OneClock.Setting), isProduction: false), Console.Out));
root.Subcommands.Add(seed);

var file = new Argument<string>("FILE") { Description = "The file of the backup." };
var backup = new Command("backup", "Writes the whole database, attachments included, to a file.");
backup.Options.Add(database);
backup.Arguments.Add(file);
backup.SetAction((parsed, _) =>
    Refused(() => Backup.MakeAsync(parsed.GetRequiredValue(database), parsed.GetRequiredValue(file), Console.Out)));
root.Subcommands.Add(backup);

var replace = new Option<bool>("--replace") { Description = "What stands in the database may go." };
var restore = new Command("restore", "Puts a backup into an empty database.");
restore.Options.Add(database);
restore.Options.Add(replace);
restore.Arguments.Add(file);
restore.SetAction(
    (parsed,
        _) => Refused(() =>
            Backup.RestoreAsync(parsed.GetRequiredValue(database), parsed.GetRequiredValue(file), parsed.GetValue(replace), Console.Out)));
root.Subcommands.Add(restore);

var slug = new Argument<string>("ORGANISATION") { Description = "As it stands in its addresses." };
var archive = new Command("archive", "Writes one organisation to a file, which another Valtro takes.");
archive.Options.Add(database);
archive.Arguments.Add(slug);
archive.Arguments.Add(file);
archive.SetAction((parsed, _) => Refused(() => ArchiveCommand.MakeAsync(
    parsed.GetRequiredValue(database), parsed.GetRequiredValue(slug), parsed.GetRequiredValue(file), Console.Out)));
root.Subcommands.Add(archive);

var take = new Command("take", "Puts an organisation out of such a file into the database, beside those that are there.");
take.Options.Add(database);
take.Arguments.Add(file);
take.SetAction((parsed, _) => Refused(() =>
    ArchiveCommand.TakeAsync(parsed.GetRequiredValue(database), parsed.GetRequiredValue(file),
        OneClock.From(null, isProduction: true).GetCurrentInstant(), Console.Out)));
root.Subcommands.Add(take);

var checkedFile = new Argument<string>("FILE") { Description = "A file, an address, or - for standard input." };
var check = new Command("check", "Says what is wrong with an iCalendar file or address, line by line; 1 where there is an error.");
check.Arguments.Add(checkedFile);
check.SetAction((parsed, _) =>
    CheckCommand.RunAsync(parsed.GetRequiredValue(checkedFile), Console.OpenStandardInput(), Console.Out, Console.Error));
root.Subcommands.Add(check);

return await root.Parse(args).InvokeAsync();

static async Task<int> Refused(Func<Task> act)
{
    try
    {
        await act();
        return 0;
    }
    catch (BackupException refused)
    {
        await Console.Error.WriteLineAsync($"valtro: {refused.Message}");
        return 1;
    }
}
