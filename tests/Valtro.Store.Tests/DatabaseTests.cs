using System.Data.Common;
using Dapper;
using Npgsql;
using Valtro.Core.Calendars;
using Valtro.Core.Disclosure;

namespace Valtro.Store.Tests;

/// <summary>Statements that a connection keeps planned.</summary>
public sealed class DatabaseTests : SchoolAndClub
{
    private const string Planned = "select count(*)::integer from pg_prepared_statements where statement like '%from calendar%'";

    private const int Often = 10;

    private Database OfOneConnection(string more = "") =>
        Database.Walled($"{new NpgsqlConnectionStringBuilder(_test.ConnectionString) { MaxPoolSize = 1 }.ConnectionString};{more}");

    private static Task<string?> NamesAsync(Database database) =>
        database.FirstAsync<string>("select string_agg(name, ', ' order by name) from calendar");

    private const string Seen = "update calendar set description = description || '!' returning plate";

    private static Task<string?> PlateAsync(Database database) => database.FirstAsync<string>("select plate from calendar");

    private static Task<string?> SeenAsync(DbTransaction transaction) =>
        transaction.Connection!.ExecuteScalarAsync<string>(Seen, transaction: transaction);

    private Task AddAsync(Guid organisation, string plate) => Calendars.AddAsync(
        organisation, new CalendarSettings(plate, Plate.Parse(plate), Hue.Named("harbour"), Halifax, "", Disclosure.Open, []), Now);

    [Theory]
    [InlineData("", 1)]
    [InlineData("Max Auto Prepare=0", 0)]
    public async Task What_is_asked_often_is_planned_once_unless_the_connection_string_forbids_it(string more, int planned)
    {
        await using var database = OfOneConnection(more);
        using var within = Wall.Within(_school);
        for (var time = 0; time < Often; time++)
            await NamesAsync(database);
        Assert.Equal(planned, await database.FirstAsync<int>(Planned));
    }

    [Fact]
    public async Task A_planned_statement_sees_the_organisation_for_which_it_is_asked()
    {
        await AddAsync(_school, "PW");
        await AddAsync(_club, "XX");
        await using var database = OfOneConnection();
        for (var time = 0; time < Often; time++)
        {
            using (Wall.Within(_school))
                Assert.Equal("PW", await NamesAsync(database));
            using (Wall.Within(_club))
                Assert.Equal("XX", await NamesAsync(database));
            Assert.Null(await NamesAsync(database));
        }
    }

    /// <summary>As a migration of another node does beneath us: the answer that a plan gives is another now.</summary>
    [Fact]
    public async Task A_planned_statement_whose_table_was_changed_is_planned_again()
    {
        await AddAsync(_school, "PW");
        await using var database = OfOneConnection();
        using var within = Wall.Within(_school);
        for (var time = 0; time < Often; time++)
        {
            Assert.Equal("PW", await PlateAsync(database));
            Assert.Equal(["PW"], await database.ReturningAsync<string>(Seen));
            Assert.Equal("PW", await database.InTransactionAsync(SeenAsync));
        }
        await _test.Database.ExecuteAsync("alter table calendar alter column plate type varchar(500)");
        Assert.Equal("PW", await PlateAsync(database));
        // What changes something is done once.
        await _test.Database.ExecuteAsync("alter table calendar alter column plate type text");
        Assert.Equal(["PW"], await database.ReturningAsync<string>(Seen));
        await _test.Database.ExecuteAsync("alter table calendar alter column plate type varchar(500)");
        Assert.Equal("PW", await database.InTransactionAsync(SeenAsync));
        Assert.Equal(new string('!', 2 * Often + 2), await database.FirstAsync<string>("select description from calendar"));
    }
}
