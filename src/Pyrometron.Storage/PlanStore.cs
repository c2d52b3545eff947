using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Planning;
using Pyrometron.Core.Weeks;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>Work that has no place in a plan.</summary>
/// <param name="Code">Why; null where a person left it out.</param>
public sealed record StoredLeftOut(Wanted Work, LeftOutCode? Code, Message Reason);

/// <summary>A plan as it was made or changed.</summary>
/// <param name="Id">Its number; the newest is in force.</param>
/// <param name="Before">The plan that it was made from.</param>
/// <param name="By">Who made it; empty where nobody said.</param>
/// <param name="Says">What was done to the plan before.</param>
/// <param name="Bound">What every plan costs at least; null after a change by hand.</param>
/// <param name="Planner">What made it: <c>solver</c>, <c>greedy</c> or <c>hand</c>.</param>
public sealed record StoredPlan(
    long Id,
    long? Before,
    DateTimeOffset MadeAt,
    string By,
    Message Says,
    DateOnly Start,
    int Days,
    double Cost,
    double? Bound,
    string Planner,
    IReadOnlyList<Placed> Placed,
    IReadOnlyList<StoredLeftOut> LeftOut
);

/// <summary>Plans: the one in force, and those before it.</summary>
public sealed class PlanStore(Database database)
{
    /// <summary>So many plans back can be gone.</summary>
    private const int Kept = 50;

    /// <summary>The plan in force; null where none was made.</summary>
    public StoredPlan? Newest() => database.Read(Newest);

    /// <summary>The plan in force within a use case.</summary>
    public static StoredPlan? Newest(Transaction t) => Newest(t.Connection);

    /// <summary>A plan by its number; null where it is not kept any more.</summary>
    public StoredPlan? Find(long id) => database.Read(connection => Find(connection, id));

    /// <summary>A plan within a use case.</summary>
    public static StoredPlan? Find(Transaction t, long id) => Find(t.Connection, id);

    /// <summary>What earlier plans gave to each person from an instant on, each work as it stood last.</summary>
    public IReadOnlyList<Placed> Earlier(DateTimeOffset from) =>
        database.Read(connection =>
            connection.Query(
                """
                SELECT work, start, person, max(plan_id), helper FROM plan_job
                WHERE person IS NOT NULL AND start >= $from AND plan_id < (SELECT max(id) FROM plan)
                GROUP BY person, helper, json_extract(work, '$.id')
                """,
                r => new Placed(
                    StoredJson.Read<WantedRecord>(r.GetString(0)).ToWanted(),
                    r.GetString(2),
                    Sql.ReadInstant(r.GetString(1)),
                    false,
                    r.TextOrNull(4)
                ),
                ("$from", Sql.Text(from))
            )
        );

    /// <summary>Puts a plan in force.</summary>
    /// <param name="plan">Number, instant and person are made here.</param>
    /// <returns>Its number.</returns>
    public static long Keep(Transaction t, StoredPlan plan)
    {
        var id = (long)
            t.Connection.Scalar(
                """
                INSERT INTO plan (before_id, made_at, actor_id, says, start_day, days, cost, bound, planner)
                VALUES ($before, $now, $actor, $says, $start, $days, $cost, $bound, $planner) RETURNING id
                """,
                ("$before", plan.Before),
                ("$now", Sql.Text(t.Now)),
                ("$actor", t.ActorId),
                ("$says", StoredJson.Write(MessageRecord.Of(plan.Says))),
                ("$start", Sql.Text(plan.Start)),
                ("$days", plan.Days),
                ("$cost", plan.Cost),
                ("$bound", plan.Bound),
                ("$planner", plan.Planner)
            )!;
        foreach (var placed in plan.Placed)
            t.Execute(
                """
                INSERT INTO plan_job (plan_id, work, person, start, locked, helper)
                VALUES ($plan, $work, $person, $start, $locked, $helper)
                """,
                ("$plan", id),
                ("$work", StoredJson.Write(WantedRecord.Of(placed.Work))),
                ("$person", placed.Person),
                ("$start", Sql.Text(placed.Start)),
                ("$locked", placed.Locked ? 1 : 0),
                ("$helper", placed.Helper)
            );
        foreach (var left in plan.LeftOut)
            t.Execute(
                "INSERT INTO plan_job (plan_id, work, code, reason) VALUES ($plan, $work, $code, $reason)",
                ("$plan", id),
                ("$work", StoredJson.Write(WantedRecord.Of(left.Work))),
                ("$code", left.Code is { } code ? Words.Of(code) : null),
                ("$reason", StoredJson.Write(MessageRecord.Of(left.Reason)))
            );
        Forget(t, id - Kept);
        return id;
    }

    private static void Forget(Transaction t, long last)
    {
        t.Connection.Execute("UPDATE plan SET before_id = NULL WHERE before_id <= $last", ("$last", last));
        t.Connection.Execute("DELETE FROM plan_job WHERE plan_id <= $last", ("$last", last));
        t.Connection.Execute("DELETE FROM plan WHERE id <= $last", ("$last", last));
    }

    private static StoredPlan? Newest(SqliteConnection connection) =>
        connection.Scalar("SELECT max(id) FROM plan") is long id ? Find(connection, id) : null;

    private static StoredPlan? Find(SqliteConnection connection, long id)
    {
        var jobs = connection.Query(
            "SELECT work, person, start, locked, code, reason, helper FROM plan_job WHERE plan_id = $id",
            r =>
                (
                    Work: StoredJson.Read<WantedRecord>(r.GetString(0)).ToWanted(),
                    Person: r.TextOrNull(1),
                    Start: r.InstantOrNull(2),
                    Locked: r.GetBoolean(3),
                    Code: r.TextOrNull(4),
                    Reason: r.TextOrNull(5),
                    Helper: r.TextOrNull(6)
                ),
            ("$id", id)
        );
        return connection
            .Query(
                """
                SELECT p.before_id, p.made_at, a.name, p.says, p.start_day, p.days, p.cost, p.bound, p.planner
                FROM plan p JOIN actor a ON a.id = p.actor_id WHERE p.id = $id
                """,
                r => new StoredPlan(
                    id,
                    r.LongOrNull(0),
                    Sql.ReadInstant(r.GetString(1)),
                    r.GetString(2),
                    StoredJson.Read<MessageRecord>(r.GetString(3)).ToMessage(),
                    r.Date(4),
                    r.GetInt32(5),
                    r.GetDouble(6),
                    r.IsDBNull(7) ? null : r.GetDouble(7),
                    r.GetString(8),
                    [
                        .. jobs.Where(j => j.Person is not null)
                            .Select(j => new Placed(j.Work, j.Person!, j.Start!.Value, j.Locked, j.Helper)),
                    ],
                    [
                        .. jobs.Where(j => j.Person is null)
                            .Select(j => new StoredLeftOut(
                                j.Work,
                                j.Code is null ? null : StoredWords.Read<LeftOutCode>(j.Code),
                                StoredJson.Read<MessageRecord>(j.Reason!).ToMessage()
                            )),
                    ]
                ),
                ("$id", id)
            )
            .FirstOrDefault();
    }
}
