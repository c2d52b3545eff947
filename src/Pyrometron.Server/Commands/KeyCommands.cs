using System.CommandLine;
using Pyrometron.Application.Access;
using Pyrometron.Core.Fleet;
using Pyrometron.Storage;

namespace Pyrometron.Server.Commands;

/// <summary>Keys of programs by hand: given out, listed, renewed, ended; also while the server is at work.</summary>
internal static class KeyCommands
{
    /// <summary>The command with those below it.</summary>
    /// <param name="data">The option that names the folder with the database.</param>
    /// <param name="json">The option for answers in JSON.</param>
    public static Command Command(Option<string> data, Option<bool> json)
    {
        var name = new Argument<string>("program") { Description = "The program's name." };
        var scope = new Option<string>("--scope")
        {
            Description = $"What it is for: one of {Words.List<KeyScope>()}.",
            DefaultValueFactory = _ => Words.Of(KeyScope.Readings),
        };
        var until = new Option<DateOnly?>("--until") { Description = "The last day on which it counts, UTC; by default no end." };
        var list = new Command("list", "Lists the keys.") { data, json };
        list.SetAction(parsed => Run(parsed, data, (report, keys, store) => List(report, store)));
        var add = new Command("add", "Gives a program a key; it is told this once.") { name, scope, until, data, json };
        add.SetAction(parsed =>
            Run(
                parsed,
                data,
                (report, keys, _) =>
                {
                    if (!Words.TryRead<KeyScope>(parsed.GetValue(scope), out var wanted))
                        throw new InvalidDataException($"--scope is one of {Words.List<KeyScope>()}.");
                    DateTimeOffset? end = parsed.GetValue(until) is { } day
                        ? new DateTimeOffset(day.ToDateTime(TimeOnly.MinValue), TimeSpan.Zero).AddDays(1)
                        : null;
                    report.Line("key", parsed.GetValue(name)!, keys.Add(Actor.Program, parsed.GetValue(name)!, wanted, end));
                }
            )
        );
        var renew = new Command("renew", "Makes a new key for the same program; the one before counts for another day.")
        {
            name,
            data,
            json,
        };
        renew.SetAction(parsed =>
            Run(
                parsed,
                data,
                (report, keys, store) =>
                    report.Line("key", parsed.GetValue(name)!, keys.Renew(Actor.Program, IdOf(store, parsed.GetValue(name)!)))
            )
        );
        var end = new Command("end", "Ends a key at once.") { name, data, json };
        end.SetAction(parsed =>
            Run(
                parsed,
                data,
                (report, keys, store) =>
                {
                    keys.Remove(Actor.Program, IdOf(store, parsed.GetValue(name)!));
                    report.Line("key", parsed.GetValue(name)!, "ended");
                }
            )
        );
        return new Command("key", "Keys of programs: listed, given out, renewed, ended.") { list, add, renew, end };
    }

    private static long IdOf(KeyStore store, string name) =>
        store.All().FirstOrDefault(k => k.Name == name)?.Id
        ?? throw new InvalidDataException($"There is no key for '{name}'. The command key list tells which there are.");

    private static void List(Report report, KeyStore store)
    {
        foreach (var k in store.All())
            report.Line(
                k.Name,
                Words.Of(k.Scope),
                FormattableString.Invariant(
                    $"{k.Begins}…, of {k.MadeAt.UtcDateTime:yyyy-MM-dd}, {(k.UsedAt is { } used ? $"last used {used.UtcDateTime:yyyy-MM-dd HH}:00 from {k.UsedFrom}" : "never used")}{(k.Until is { } until ? $", counts until {until.UtcDateTime:yyyy-MM-dd}" : "")}"
                )
            );
    }

    private static int Run(ParseResult parsed, Option<string> data, Action<Report, KeyUseCases, KeyStore> work) =>
        CommandLine.Told(
            parsed,
            (report, _) =>
            {
                using var database = CommandLine.Open(parsed.GetValue(data)!);
                var store = new KeyStore(database);
                work(report, new KeyUseCases(database, store, TimeProvider.System), store);
                return true;
            }
        );
}
