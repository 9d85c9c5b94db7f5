using System.ComponentModel;
using System.Diagnostics;
using Npgsql;
using Valtro.Store;

namespace Valtro.Tools.Backups;

/// <summary>A program of PostgreSQL's own (pg_dump, pg_restore, psql), at a database of Npgsql's connection string.</summary>
internal sealed class PostgresProgram : IDisposable
{
    private readonly Process _process;
    private readonly Task<string> _errors;

    private PostgresProgram(Process process) => (_process, _errors) = (process, process.StandardError.ReadToEndAsync());

    public Stream Input => _process.StandardInput.BaseStream;

    public Stream Output => _process.StandardOutput.BaseStream;

    /// <exception cref="BackupException">The program is not there.</exception>
    public static PostgresProgram Start(string name, NpgsqlConnectionStringBuilder? database, params string[] arguments)
    {
        // Where Debian keeps them, the newest first; else wherever the system finds them.
        const string Debian = "/usr/lib/postgresql";
        var found = (Directory.Exists(Debian) ? Directory.GetDirectories(Debian) : [])
            .OrderByDescending(version => int.TryParse(Path.GetFileName(version), out var number) ? number : 0)
            .Select(version => Path.Combine(version, "bin", name)).FirstOrDefault(File.Exists) ?? name;
        var start = new ProcessStartInfo(
            found, arguments)
        { RedirectStandardInput = true, RedirectStandardOutput = true, RedirectStandardError = true };
        if (database is not null)
        {
            void Set(string variable, string? value)
            {
                if (!string.IsNullOrEmpty(value))
                    start.Environment[variable] = value;
            }
            // The password goes by the environment: the arguments of a program are there for all to see.
            Set("PGHOST", database.Host);
            Set("PGPORT", $"{database.Port}");
            Set("PGUSER", database.Username);
            Set("PGPASSWORD", database.Password);
            Set("PGPASSFILE", database.Passfile);
            Set("PGDATABASE", database.Database);
            Set("PGSSLROOTCERT", database.RootCertificate);
            Set("PGSSLMODE",
                database.SslMode switch
                {
                    SslMode.VerifyCA => "verify-ca",
                    SslMode.VerifyFull => "verify-full",
                    var mode => mode.ToString().ToLowerInvariant()
                });
            // The wall between organisations binds the tables' owner too; whoever keeps the whole sees all of it.
            Set("PGOPTIONS", $"-c {Wall.Setting}={Wall.All}");
            Set("PGAPPNAME", "valtro backup");
        }
        try
        {
            return new PostgresProgram(Process.Start(start)!);
        }
        catch (Win32Exception missing)
        {
            throw new BackupException(
                $"{name} could not be started ({missing.Message}). It comes with Debian's package postgresql-client.");
        }
    }

    /// <summary>Waits until it has ended.</summary>
    /// <exception cref="BackupException">It ended with a failure; what it said of it.</exception>
    public async Task EndAsync()
    {
        await _process.WaitForExitAsync();
        if (_process.ExitCode != 0)
            throw new BackupException($"{Path.GetFileName(_process.StartInfo.FileName)} failed: {(await _errors).Trim()}");
    }

    /// <summary>Runs it to its end.</summary>
    /// <returns>What it wrote.</returns>
    /// <exception cref="BackupException">It failed.</exception>
    public static async Task<string> RunAsync(string name, NpgsqlConnectionStringBuilder? database, params string[] arguments)
    {
        using var program = Start(name, database, arguments);
        var written = await program._process.StandardOutput.ReadToEndAsync();
        await program.EndAsync();
        return written;
    }

    /// <summary>Ends it, whatever it is doing.</summary>
    public void Dispose()
    {
        if (!_process.HasExited)
            _process.Kill();
        _process.Dispose();
    }
}
