using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Weeks;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>Who works on machines, and when they are away.</summary>
public sealed class PeopleStore(Database database)
{
    /// <summary>All people, in the order in which they came.</summary>
    public IReadOnlyList<Person> All() => database.Read(All);

    /// <summary>All people within a use case.</summary>
    public static IReadOnlyList<Person> All(Transaction t) => All(t.Connection);

    /// <summary>All absences with their numbers, the earliest first.</summary>
    public IReadOnlyList<(long Id, Absence Absence)> Absences() => database.Read(Absences);

    /// <summary>All absences within a use case.</summary>
    public static IReadOnlyList<(long Id, Absence Absence)> Absences(Transaction t) => Absences(t.Connection);

    /// <summary>Adds somebody, or changes what is known of them.</summary>
    public static void Keep(Transaction t, Person person)
    {
        var id = t.Connection.Scalar(
            """
            INSERT INTO person (code, name, skills, sites) VALUES ($code, $name, $skills, $sites)
            ON CONFLICT (code) DO UPDATE SET name = excluded.name, skills = excluded.skills, sites = excluded.sites RETURNING id
            """,
            ("$code", person.Code),
            ("$name", person.Name),
            ("$skills", string.Join(' ', person.Skills.Order().Select(Words.Of))),
            ("$sites", string.Join(' ', person.Sites))
        );
        t.Connection.Execute("DELETE FROM person_hours WHERE person_id = $person", ("$person", id));
        foreach (var time in person.Hours)
            t.Connection.Execute(
                "INSERT INTO person_hours (person_id, weekday, from_minute, to_minute) VALUES ($person, $day, $from, $to)",
                ("$person", id),
                ("$day", (int)time.Day),
                ("$from", time.From),
                ("$to", time.To)
            );
    }

    /// <summary>Takes somebody off the list, with their absences.</summary>
    public static void Remove(Transaction t, string code)
    {
        const string whose = "person_id = (SELECT id FROM person WHERE code = $code)";
        t.Connection.Execute($"DELETE FROM absence WHERE {whose}", ("$code", code));
        t.Connection.Execute($"DELETE FROM person_hours WHERE {whose}", ("$code", code));
        t.Connection.Execute("DELETE FROM person WHERE code = $code", ("$code", code));
    }

    /// <summary>Keeps an absence of somebody who is on the list.</summary>
    /// <returns>Its number.</returns>
    public static long Keep(Transaction t, Absence absence) =>
        (long)
            t.Connection.Scalar(
                """
                INSERT INTO absence (person_id, from_day, to_day, reason)
                SELECT id, $from, $to, $reason FROM person WHERE code = $person RETURNING id
                """,
                ("$person", absence.Person),
                ("$from", Sql.Text(absence.From)),
                ("$to", Sql.Text(absence.To)),
                ("$reason", absence.Reason)
            )!;

    /// <summary>Takes an absence back.</summary>
    public static void RemoveAbsence(Transaction t, long id) =>
        t.Connection.Execute("DELETE FROM absence WHERE id = $id", ("$id", id));

    private static List<Person> All(SqliteConnection connection)
    {
        var hours = connection
            .Query(
                "SELECT person_id, weekday, from_minute, to_minute FROM person_hours ORDER BY weekday, from_minute",
                r => (Person: r.GetInt64(0), Time: new WeeklyTime((DayOfWeek)r.GetInt32(1), r.GetInt32(2), r.GetInt32(3)))
            )
            .ToLookup(h => h.Person, h => h.Time);
        return connection.Query(
            "SELECT id, code, name, skills, sites FROM person ORDER BY id",
            r => new Person(
                r.GetString(1),
                r.GetString(2),
                Listed(r.GetString(3)).Select(StoredWords.Read<Skill>).ToHashSet(),
                Listed(r.GetString(4)),
                [.. hours[r.GetInt64(0)]]
            )
        );
    }

    private static List<(long Id, Absence Absence)> Absences(SqliteConnection connection) =>
        connection.Query(
            """
            SELECT a.id, p.code, a.from_day, a.to_day, a.reason FROM absence a JOIN person p ON p.id = a.person_id
            ORDER BY a.from_day, a.id
            """,
            r => (r.GetInt64(0), new Absence(r.GetString(1), r.Date(2), r.Date(3), r.GetString(4)))
        );

    private static string[] Listed(string words) => words.Split(' ', StringSplitOptions.RemoveEmptyEntries);
}
