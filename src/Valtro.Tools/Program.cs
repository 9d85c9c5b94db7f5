using System.CommandLine;
using Valtro;
using Valtro.Tools;

// The command line behind ./valtro.
var root = new RootCommand("Valtro's tools");

var expand = new Command("expand", "Reads recurrence questions as JSON lines on standard input and writes an answer line for each.");
expand.SetAction(_ => ExpandCommand.Run(Console.In, Console.Out));
root.Subcommands.Add(expand);

var database = new Option<string>("--database") { Description = "The database, in Npgsql's form.", Required = true };
var seed = new Command("seed", "Migrates the database and fills it with the demo data when it is empty.");
seed.Options.Add(database);
seed.SetAction((parsed, _) => SeedCommand.RunAsync(parsed.GetRequiredValue(database), OneClock.From(Environment.GetEnvironmentVariable(OneClock.Setting), isProduction: false), Console.Out));
root.Subcommands.Add(seed);

return await root.Parse(args).InvokeAsync();
