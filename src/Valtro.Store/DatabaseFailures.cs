using System.Net.Sockets;
using Npgsql;

namespace Valtro.Store;

/// <summary>What a failure means: that the database is away, full or slow, or that something is wrong with a statement.</summary>
public static class DatabaseFailures
{
    /// <summary>
    /// The database cannot be reached, is starting up, went away in the middle, has no connection, memory or room left (class 53), was too
    /// slow (57014, 55P03), or stands by for another (25006). Not that it refused a statement.
    /// </summary>
    public static bool IsAway(Exception? failure) => failure switch
    {
        null => false,
        PostgresException refused =>
            refused.SqlState is PostgresErrorCodes.QueryCanceled or PostgresErrorCodes.LockNotAvailable
                or PostgresErrorCodes.ReadOnlySqlTransaction
                or PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure
            || Class(refused) is "57" or "08" or "53" or "58",
        NpgsqlException => true,
        TimeoutException => true,
        SocketException => true,
        _ => IsAway(failure.InnerException),
    };

    /// <summary>In a word for people.</summary>
    public static FailureReason ReasonOf(Exception? failure) => failure switch
    {
        null => FailureReason.Ours,
        PostgresException { SqlState: PostgresErrorCodes.DiskFull } => FailureReason.Disk,
        IOException { HResult: 28 } => FailureReason.Disk,
        _ when failure is not (NpgsqlException or TimeoutException) && failure.InnerException is { } inner => ReasonOf(inner),
        _ => IsAway(failure) ? FailureReason.Database : FailureReason.Ours,
    };

    private static string Class(PostgresException refused) => refused.SqlState[..2];
}
