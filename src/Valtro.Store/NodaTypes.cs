using System.Data;
using Dapper;
using NodaTime;

namespace Valtro.Store;

/// <summary>Teaches Dapper that Npgsql reads and writes NodaTime's types itself.</summary>
internal static class NodaTypes
{
    public static void Register()
    {
        SqlMapper.AddTypeHandler(new AsIs<Instant>());
        SqlMapper.AddTypeHandler(new AsIs<LocalDateTime>());
        SqlMapper.AddTypeHandler(new AsIs<LocalDate>());
        SqlMapper.AddTypeHandler(new AsIs<Interval>());
    }

    private sealed class AsIs<T> : SqlMapper.TypeHandler<T>
    {
        public override void SetValue(IDbDataParameter parameter, T? value) => parameter.Value = value;

        public override T? Parse(object value) => (T)value;
    }
}
