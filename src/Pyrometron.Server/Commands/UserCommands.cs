using System.CommandLine;
using Pyrometron.Application.Access;
using Pyrometron.Core.Fleet;
using Pyrometron.Server.Access;
using Pyrometron.Storage;

namespace Pyrometron.Server.Commands;

/// <summary>
/// Accounts by hand, for whoever can reach the house's files: also while the server is at work, and when nobody can sign in any
/// more.
/// </summary>
internal static class UserCommands
{
    private static readonly Argument<string> Code = new("account") { Description = "The sign-in name." };

    /// <summary>The command with those below it.</summary>
    /// <param name="data">The option that names the folder with the database.</param>
    /// <param name="json">The option for answers in JSON.</param>
    public static Command Command(Option<string> data, Option<bool> json)
    {
        var name = new Option<string>("--name") { Description = "The name, as others see it.", Required = true };
        var role = new Option<string>("--role")
        {
            Description = $"One of {Words.List<Role>()}.",
            DefaultValueFactory = _ => Words.Of(Role.Technician),
        };
        var list = new Command("list", "Lists who may sign in.") { data, json };
        list.SetAction(parsed => CommandLine.Told(parsed, (report, _) => List(report, CommandLine.Open(parsed.GetValue(data)!))));
        var add = new Command("add", "Adds an account and tells the link by which its person comes in.")
        {
            Code,
            name,
            role,
            data,
            json,
        };
        add.SetAction(parsed =>
            CommandLine.Told(
                parsed,
                (report, _) =>
                {
                    if (!Words.TryRead<Role>(parsed.GetValue(role), out var wanted))
                        throw new InvalidDataException($"--role is one of {Words.List<Role>()}.");
                    var account = new Account(0, parsed.GetValue(Code)!, parsed.GetValue(name)!, wanted, [], [], false);
                    return Give(report, account.Code, Using(parsed, data, users => users.Add(Actor.Program, account)));
                }
            )
        );
        var reset = new Command("reset", "Tells a new link for somebody who cannot sign in; takes the second factor away.")
        {
            Code,
            data,
            json,
        };
        reset.SetAction(parsed =>
            CommandLine.Told(
                parsed,
                (report, _) =>
                    Give(
                        report,
                        parsed.GetValue(Code)!,
                        Using(
                            parsed,
                            data,
                            users =>
                            {
                                users.TakeSecondFactor(Actor.Program, parsed.GetValue(Code)!);
                                return users.GiveLink(Actor.Program, parsed.GetValue(Code)!);
                            }
                        )
                    )
            )
        );
        return new Command("user", "Accounts of people: listed, added, let in again.") { list, add, reset };
    }

    private static T Using<T>(ParseResult parsed, Option<string> data, Func<AccountUseCases, T> work)
    {
        using var database = CommandLine.Open(parsed.GetValue(data)!);
        return work(new AccountUseCases(database, TimeProvider.System));
    }

    private static bool List(Report report, Database database)
    {
        using (database)
        {
            var accounts = new AccountStore(database);
            var ready = accounts.Ready();
            foreach (var a in accounts.All())
                report.Line(
                    a.Code,
                    Words.Of(a.Role),
                    a.Suspended ? "suspended"
                        : ready[a.Id].Password ? a.Name
                        : $"{a.Name}, has not come in"
                );
            return true;
        }
    }

    private static bool Give(Report report, string code, string token)
    {
        report.Line(
            code,
            AccountsEndpoints.PathOf(token),
            "open this behind the address of the house; it works once, for 7 days"
        );
        return true;
    }
}
