using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Pyrometron.Storage;

/// <summary>Short forms of plain ADO.NET, so that the SQL stands out.</summary>
internal static class Sql
{
    public static void Execute(
        this SqliteConnection connection,
        string sql,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        using var command = connection.Command(sql, parameters);
        command.ExecuteNonQuery();
    }

    public static object? Scalar(
        this SqliteConnection connection,
        string sql,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        using var command = connection.Command(sql, parameters);
        var value = command.ExecuteScalar();
        return value is DBNull ? null : value;
    }

    public static List<T> Query<T>(
        this SqliteConnection connection,
        string sql,
        Func<SqliteDataReader, T> row,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        using var command = connection.Command(sql, parameters);
        using var reader = command.ExecuteReader();
        var rows = new List<T>();
        while (reader.Read())
            rows.Add(row(reader));
        return rows;
    }

    /// <summary>As <see cref="Query"/>; a row that cannot be read is told and left out, the others are returned.</summary>
    public static List<T> QueryReadable<T>(
        this SqliteConnection connection,
        string sql,
        Func<SqliteDataReader, T> row,
        Action<SqliteDataReader, Exception> unreadable,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        using var command = connection.Command(sql, parameters);
        using var reader = command.ExecuteReader();
        var rows = new List<T>();
        while (reader.Read())
            try
            {
                rows.Add(row(reader));
            }
            catch (Exception error)
                when (error is FormatException or InvalidDataException or InvalidCastException or InvalidOperationException
                    || error is System.Text.Json.JsonException or ArgumentException or OverflowException
                )
            {
                unreadable(reader, error);
            }
        return rows;
    }

    public static SqliteCommand Command(
        this SqliteConnection connection,
        string sql,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    )
    {
        var command = connection.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in parameters)
            command.Parameters.AddWithValue(name, value ?? DBNull.Value);
        return command;
    }

    public static string? TextOrNull(this SqliteDataReader row, int column) =>
        row.IsDBNull(column) ? null : row.GetString(column);

    public static long? LongOrNull(this SqliteDataReader row, int column) => row.IsDBNull(column) ? null : row.GetInt64(column);

    public static double? NumberOrNull(this SqliteDataReader row, int column) =>
        row.IsDBNull(column) ? null : row.GetDouble(column);

    public static double NumberOrNaN(this SqliteDataReader row, int column) =>
        row.IsDBNull(column) ? double.NaN : row.GetDouble(column);

    public static DateOnly Date(this SqliteDataReader row, int column) =>
        DateOnly.ParseExact(row.GetString(column), "yyyy-MM-dd", CultureInfo.InvariantCulture);

    public static DateOnly? DateOrNull(this SqliteDataReader row, int column) => row.IsDBNull(column) ? null : row.Date(column);

    public static DateTimeOffset? InstantOrNull(this SqliteDataReader row, int column) =>
        row.IsDBNull(column) ? null : ReadInstant(row.GetString(column));

    public static string Text(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    public static string Text(DateTimeOffset instant) =>
        instant.UtcDateTime.ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", CultureInfo.InvariantCulture);

    public static DateTimeOffset ReadInstant(string text) => DateTimeOffset.Parse(text, CultureInfo.InvariantCulture);
}
