using Microsoft.Data.Sqlite;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage.Records;

namespace Pyrometron.Storage;

/// <summary>What an account is checked by when somebody signs in.</summary>
/// <param name="Password">As the hasher wrote it; null until one is chosen.</param>
/// <param name="Totp">The secret of one-time codes, base 32; null for none.</param>
/// <param name="TotpOffered">One that is being tried out; null for none.</param>
/// <param name="TotpStep">The last step whose code was taken.</param>
/// <param name="RecoveryCodes">How many are left.</param>
public sealed record Secrets(string? Password, string? Totp, string? TotpOffered, long TotpStep, int RecoveryCodes)
{
    /// <summary>No secret stands in a text.</summary>
    public override string ToString() => nameof(Secrets);
}

/// <summary>Who may sign in, and by what.</summary>
public sealed class AccountStore(Database database)
{
    private const string Columns = "SELECT id, code, name, role, sites, machines, suspended FROM account";

    /// <summary>All accounts, by sign-in name.</summary>
    public IReadOnlyList<Account> All() => database.Read(All);

    /// <summary>All accounts within a use case.</summary>
    public static IReadOnlyList<Account> All(Transaction t) => All(t.Connection);

    /// <summary>One by its sign-in name.</summary>
    public Account? Find(string code) => database.Read(connection => Find(connection, code));

    /// <summary>One within a use case.</summary>
    public static Account? Find(Transaction t, string code) => Find(t.Connection, code);

    /// <summary>Whether somebody who keeps the house has a password: before that nobody can sign in who lets others in.</summary>
    public bool HasKeeper() => database.Read(HasKeeper);

    /// <summary>The same within a use case.</summary>
    public static bool HasKeeper(Transaction t) => HasKeeper(t.Connection);

    /// <summary>What an account is checked by.</summary>
    public Secrets Secrets(long id) => database.Read(connection => Secrets(connection, id));

    /// <summary>The same within a use case.</summary>
    public static Secrets Secrets(Transaction t, long id) => Secrets(t.Connection, id);

    /// <summary>Those who have chosen a password, and those who have one-time codes.</summary>
    public IReadOnlyDictionary<long, (bool Password, bool Totp)> Ready() =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT id, password IS NOT NULL, totp IS NOT NULL FROM account",
                    r => (Id: r.GetInt64(0), Has: (r.GetBoolean(1), r.GetBoolean(2)))
                )
                .ToDictionary(a => a.Id, a => a.Has)
        );

    /// <summary>Adds one.</summary>
    /// <returns>Its number.</returns>
    public static long Add(Transaction t, Account account) =>
        (long)
            t.Connection.Scalar(
                """
                INSERT INTO account (code, name, alike, role, sites, machines, suspended, made_at)
                VALUES ($code, $name, $alike, $role, $sites, $machines, $suspended, $now) RETURNING id
                """,
                [.. Parameters(account), ("$now", Sql.Text(t.Now))]
            )!;

    /// <summary>Changes one.</summary>
    public static void Update(Transaction t, Account account) =>
        t.Connection.Execute(
            """
            UPDATE account SET code = $code, name = $name, alike = $alike, role = $role, sites = $sites, machines = $machines,
                suspended = $suspended WHERE id = $id
            """,
            [.. Parameters(account), ("$id", account.Id)]
        );

    /// <summary>Removes one with all by which it could sign in.</summary>
    public static void Remove(Transaction t, long id) => t.Connection.Execute("DELETE FROM account WHERE id = $id", ("$id", id));

    /// <summary>Sets a password; links that were given out before end.</summary>
    /// <param name="hash">As the hasher wrote it.</param>
    public static void SetPassword(Transaction t, long id, string hash)
    {
        t.Connection.Execute("UPDATE account SET password = $hash WHERE id = $id", ("$id", id), ("$hash", hash));
        EndLinks(t, id);
    }

    /// <summary>Writes the same password as a newer hasher writes it.</summary>
    public static void Rehash(Transaction t, long id, string hash) =>
        t.Connection.Execute("UPDATE account SET password = $hash WHERE id = $id", ("$id", id), ("$hash", hash));

    /// <summary>Offers a secret for one-time codes; it counts once a code of it was sent back.</summary>
    public static void OfferTotp(Transaction t, long id, string secret) =>
        t.Connection.Execute("UPDATE account SET totp_offered = $secret WHERE id = $id", ("$id", id), ("$secret", secret));

    /// <summary>Sets the secret of one-time codes, or with null takes it away, and the recovery codes with it.</summary>
    public static void SetTotp(Transaction t, long id, string? secret, IReadOnlyList<string> recoveryHashes)
    {
        t.Connection.Execute(
            "UPDATE account SET totp = $secret, totp_offered = NULL WHERE id = $id",
            ("$id", id),
            ("$secret", secret)
        );
        SetRecoveryCodes(t, id, recoveryHashes);
    }

    /// <summary>Makes other recovery codes count.</summary>
    public static void SetRecoveryCodes(Transaction t, long id, IReadOnlyList<string> hashes)
    {
        t.Connection.Execute("DELETE FROM recovery_code WHERE account_id = $id", ("$id", id));
        foreach (var hash in hashes)
            t.Connection.Execute(
                "INSERT INTO recovery_code (account_id, hash) VALUES ($id, $hash)",
                ("$id", id),
                ("$hash", hash)
            );
    }

    /// <summary>Notes that the code of a step was taken.</summary>
    /// <returns>False where it, or a later one, was taken before.</returns>
    public static bool TakeStep(Transaction t, long id, long step) =>
        t.Execute("UPDATE account SET totp_step = $step WHERE id = $id AND totp_step < $step", ("$id", id), ("$step", step)) == 1;

    /// <summary>Takes a recovery code: it counts once.</summary>
    /// <returns>False where there is no such code.</returns>
    public static bool TakeRecoveryCode(Transaction t, long id, string hash) =>
        t.Execute("DELETE FROM recovery_code WHERE account_id = $id AND hash = $hash", ("$id", id), ("$hash", hash)) == 1;

    /// <summary>Gives out a link; those before it end.</summary>
    public static void GiveLink(Transaction t, long id, string hash, DateTimeOffset until)
    {
        EndLinks(t, id);
        t.Connection.Execute(
            "INSERT INTO account_link (hash, account_id, until) VALUES ($hash, $id, $until)",
            ("$hash", hash),
            ("$id", id),
            ("$until", Sql.Text(until))
        );
    }

    /// <summary>The account that a link is for, while it counts.</summary>
    public Account? OfLink(string hash, DateTimeOffset now) => database.Read(connection => OfLink(connection, hash, now));

    /// <summary>The same within a use case.</summary>
    public static Account? OfLink(Transaction t, string hash) => OfLink(t.Connection, hash, t.Now);

    /// <summary>Until when each account's link counts.</summary>
    public IReadOnlyDictionary<long, DateTimeOffset> Links(DateTimeOffset now) =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT account_id, until FROM account_link WHERE until > $now",
                    r => (r.GetInt64(0), Sql.ReadInstant(r.GetString(1))),
                    ("$now", Sql.Text(now))
                )
                .ToDictionary()
        );

    /// <summary>How often somebody made a mistake at signing in from one place, and when last.</summary>
    public (int Count, DateTimeOffset Last)? Mistakes(string source) =>
        database.Read(connection =>
            connection
                .Query(
                    "SELECT count, last_at FROM sign_in_mistake WHERE source = $source",
                    r => ((int Count, DateTimeOffset Last)?)(r.GetInt32(0), Sql.ReadInstant(r.GetString(1))),
                    ("$source", source)
                )
                .FirstOrDefault()
        );

    /// <summary>Notes a mistake; those that are long ago are forgotten.</summary>
    public static void NoteMistake(Transaction t, string source)
    {
        t.Connection.Execute(
            "DELETE FROM sign_in_mistake WHERE last_at < $old",
            ("$old", Sql.Text(t.Now - SignInPace.Forgotten))
        );
        t.Connection.Execute(
            """
            INSERT INTO sign_in_mistake (source, count, last_at) VALUES ($source, 1, $now)
            ON CONFLICT (source) DO UPDATE SET count = count + 1, last_at = excluded.last_at
            """,
            ("$source", source),
            ("$now", Sql.Text(t.Now))
        );
    }

    /// <summary>Forgets the mistakes made in one place.</summary>
    public static void ForgetMistakes(Transaction t, string source) =>
        t.Connection.Execute("DELETE FROM sign_in_mistake WHERE source = $source", ("$source", source));

    private static bool HasKeeper(SqliteConnection connection) =>
        connection.Scalar(
            "SELECT 1 FROM account WHERE role = $role AND suspended = 0 AND password IS NOT NULL LIMIT 1",
            ("$role", Words.Of(Role.Administrator))
        )
            is not null;

    private static void EndLinks(Transaction t, long id) =>
        t.Connection.Execute("DELETE FROM account_link WHERE account_id = $id", ("$id", id));

    private static Account? OfLink(SqliteConnection connection, string hash, DateTimeOffset now) =>
        connection
            .Query(
                $"{Columns} WHERE id = (SELECT account_id FROM account_link WHERE hash = $hash AND until > $now)",
                Read,
                ("$hash", hash),
                ("$now", Sql.Text(now))
            )
            .FirstOrDefault();

    private static List<Account> All(SqliteConnection connection) => connection.Query($"{Columns} ORDER BY code", Read);

    private static Account? Find(SqliteConnection connection, string code) =>
        connection.Query($"{Columns} WHERE code = $code", Read, ("$code", code)).FirstOrDefault();

    private static Secrets Secrets(SqliteConnection connection, long id) =>
        connection
            .Query(
                """
                SELECT password, totp, totp_offered, totp_step, (SELECT count(*) FROM recovery_code r WHERE r.account_id = a.id)
                FROM account a WHERE id = $id
                """,
                r => new Secrets(r.TextOrNull(0), r.TextOrNull(1), r.TextOrNull(2), r.GetInt64(3), r.GetInt32(4)),
                ("$id", id)
            )
            .Single();

    private static (string, object?)[] Parameters(Account a) =>
        [
            ("$code", a.Code),
            ("$name", a.Name),
            ("$alike", AccountNames.Alike(a.Name)),
            ("$role", Words.Of(a.Role)),
            ("$sites", string.Join(' ', a.Sites)),
            ("$machines", StoredJson.Write(a.Machines)),
            ("$suspended", a.Suspended ? 1 : 0),
        ];

    internal static Account Read(SqliteDataReader r) => Read(r, 0);

    /// <summary>An account from columns that begin at one.</summary>
    internal static Account Read(SqliteDataReader r, int at) =>
        new(
            r.GetInt64(at),
            r.GetString(at + 1),
            r.GetString(at + 2),
            StoredWords.Read<Role>(r.GetString(at + 3)),
            r.GetString(at + 4).Split(' ', StringSplitOptions.RemoveEmptyEntries),
            StoredJson.Read<string[]>(r.GetString(at + 5)),
            r.GetInt32(at + 6) == 1
        );
}
