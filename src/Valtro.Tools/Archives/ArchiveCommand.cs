using NodaTime;
using Npgsql;
using Valtro.Store;
using Valtro.Store.Archives;
using Valtro.Tools.Backups;

namespace Valtro.Tools.Archives;

/// <summary>An organisation, taken out of a database as a file, or put into one.</summary>
public static class ArchiveCommand
{
    /// <summary>Writes a file that only its owner can read.</summary>
    /// <exception cref="BackupException">It cannot be made; there is no such file afterwards.</exception>
    public static async Task MakeAsync(string connectionString, string slug, string file, TextWriter output)
    {
        if (File.Exists(file) || Directory.Exists(file))
            throw new BackupException($"{file} is there already. Name another file, so that an older archive is not lost.");
        var unfinished = $"{file}.unfinished";
        try
        {
            ArchiveContent content;
            await using (var stream = new FileStream(unfinished, new FileStreamOptions
            {
                Mode = FileMode.Create,
                Access = FileAccess.ReadWrite,
                UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
            }))
                content = await OrganisationArchive.WriteAsync(connectionString, slug, stream);
            File.Move(unfinished, file);
            await output.WriteLineAsync($"{file}: {Held(content)}.");
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            throw new BackupException($"{file} cannot be written: {failed.Message}");
        }
        catch (NotFoundException)
        {
            throw new BackupException($"There is no organisation “{slug}” here.");
        }
        catch (NpgsqlException failed)
        {
            throw new BackupException(failed.Message);
        }
        finally
        {
            File.Delete(unfinished);
        }
    }

    /// <summary>Puts an organisation into a database, in one transaction.</summary>
    /// <exception cref="BackupException">It cannot be done; the database is as it was.</exception>
    public static async Task TakeAsync(string connectionString, string file, Instant now, TextWriter output)
    {
        if (!File.Exists(file))
            throw new BackupException($"There is no file {file}.");
        try
        {
            await Database.MigrateAsync(connectionString);
            await using var stream = File.OpenRead(file);
            var content = await ArchiveReading.ReadAsync(connectionString, stream, now);
            await output.WriteLineAsync(
                $"“{content.Name}” is here: {Held(content)}. Its people sign in with a new password, by “Forgotten it?”.");
        }
        catch (Exception failed) when (failed is ArchiveException or NpgsqlException)
        {
            throw new BackupException(failed.Message);
        }
    }

    private static string Held(ArchiveContent content)
    {
        string Of(string table, string one, string many) =>
            content.Rows.GetValueOrDefault(table) is var count && count == 1 ? $"1 {one}" : $"{count} {many}";
        return string.Join(", ", Of("calendar", "calendar", "calendars"), Of("event", "event", "events"), Of("edition", "edition", "editions"),
            Of("account", "person", "people"), Of("file", "attachment", "attachments"), Of("revision", "earlier version", "earlier versions"));
    }
}
