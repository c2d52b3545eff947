using System.Reflection;
using System.Runtime.CompilerServices;
using Pyrometron.Application;
using Pyrometron.Application.Access;
using Pyrometron.Application.Fleet;

namespace Pyrometron.Server.Tests.Access;

/// <summary>Every use case asks for a right: walked by reflection, for every role.</summary>
public sealed class RightsTests
{
    /// <summary>What is done by being signed in alone, or by the program.</summary>
    private static readonly Type[] WithoutActor = [typeof(OwnAccountUseCases), typeof(SignInUseCases)];

    /// <summary>What each use case needs, by its class; single ones apart.</summary>
    private static readonly Dictionary<string, Right> Needs = new()
    {
        ["AccountUseCases"] = Right.KeepHouse,
        ["BenchUseCases"] = Right.Work,
        ["BenchUseCases.TakeInNotes"] = Right.KeepMachines,
        ["CampaignUseCases"] = Right.Plan,
        ["ErasureUseCases"] = Right.KeepHouse,
        ["FleetUseCases"] = Right.KeepMachines,
        ["FleetUseCases.SetAside"] = Right.Plan,
        ["FleetUseCases.TakeBack"] = Right.Plan,
        ["FleetUseCases.Report"] = Right.Work,
        ["FleetUseCases.WithdrawReport"] = Right.Work,
        ["HouseFileUseCases"] = Right.KeepHouse,
        ["ImportUseCases"] = Right.KeepMachines,
        ["KeyUseCases"] = Right.KeepHouse,
        ["LogUseCases"] = Right.Work,
        ["NoticeUseCases"] = Right.KeepPeople,
        ["OwnerUseCases"] = Right.LookAtOwn,
        ["PlanUseCases"] = Right.Plan,
        ["ReadingUseCases"] = Right.Work,
        ["RuleUseCases"] = Right.KeepRules,
        ["StaffUseCases"] = Right.Plan,
        ["StaffUseCases.Keep(Person)"] = Right.KeepPeople,
        ["StaffUseCases.Remove"] = Right.KeepPeople,
        ["StoresUseCases"] = Right.KeepStores,
        ["StoresUseCases.Count"] = Right.Work,
        ["StoresUseCases.ThrowAway"] = Right.Work,
        ["StoresUseCases.Cut"] = Right.Work,
        ["TableUseCases"] = Right.KeepMachines,
        ["ZoneUseCases"] = Right.KeepMachines,
    };

    private static IEnumerable<Type> UseCases =>
        typeof(FleetUseCases).Assembly.GetTypes().Where(t => t.IsPublic && t.Name.EndsWith("UseCases", StringComparison.Ordinal));

    private static IEnumerable<MethodInfo> Methods =>
        UseCases
            .SelectMany(t => t.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.DeclaredOnly))
            .Where(m => m.GetParameters() is [{ ParameterType: var first }, ..] && first == typeof(Actor));

    private static Right NeedOf(MethodInfo method)
    {
        var (type, name) = (method.DeclaringType!.Name, method.Name);
        var second = method.GetParameters().ElementAtOrDefault(1)?.ParameterType.Name;
        return Needs.TryGetValue($"{type}.{name}({second})", out var exact) ? exact
            : Needs.TryGetValue($"{type}.{name}", out var one) ? one
            : Needs[type];
    }

    /// <summary>Whether it is refused for want of a right. Nothing else is set up: who may fails further in.</summary>
    private static async Task<bool> IsRefused(MethodInfo method, Actor actor)
    {
        var useCases = RuntimeHelpers.GetUninitializedObject(method.DeclaringType!);
        // A clock, since some look at the time first; no database.
        foreach (var field in method.DeclaringType!.GetFields(BindingFlags.NonPublic | BindingFlags.Instance))
            if (field.FieldType == typeof(TimeProvider))
                field.SetValue(useCases, TimeProvider.System);
        object?[] arguments =
        [
            actor,
            .. method
                .GetParameters()
                .Skip(1)
                .Select(p => p.ParameterType.IsValueType ? Activator.CreateInstance(p.ParameterType) : null),
        ];
        try
        {
            if (method.Invoke(useCases, arguments) is Task task)
                await task;
            return false;
        }
        catch (TargetInvocationException error)
        {
            return error.InnerException is NotAllowedException;
        }
        catch (Exception error)
        {
            return error is NotAllowedException;
        }
    }

    [Fact]
    public async Task Every_use_case_is_refused_to_whoever_lacks_its_right_and_to_nobody_else()
    {
        var walked = 0;
        foreach (var method in Methods)
        foreach (var role in Enum.GetValues<Role>())
        {
            var account = new Account(1, "mira", "Mira", role, [], [], Suspended: false);
            var expected = !Roles.RightsOf(role).Contains(NeedOf(method));
            var refused = await IsRefused(method, account.Actor);
            Assert.True(refused == expected, $"{method.DeclaringType!.Name}.{method.Name} for {role}: refused is {refused}");
            walked++;
        }
        Assert.True(walked > 300, $"only {walked} were found");
    }

    [Fact]
    public async Task Nobody_at_all_may_nothing()
    {
        foreach (var method in Methods)
            Assert.True(await IsRefused(method, new Actor(ActorKind.Person, "")), $"{method.DeclaringType!.Name}.{method.Name}");
    }

    /// <summary>A use case that forgets to say who does it could ask for no right.</summary>
    [Fact]
    public void What_writes_says_who_does_it()
    {
        string[] ofTheProgram = ["Recognise", "Notice", "Prepare", "PrepareMail", "Note", "PutOff"];
        var forgotten = UseCases
            .Except(WithoutActor)
            .SelectMany(t => t.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.DeclaredOnly))
            .Where(m => m.GetParameters().FirstOrDefault()?.ParameterType != typeof(Actor))
            .Where(m => !ofTheProgram.Contains(m.Name));
        Assert.Empty(forgotten.Select(m => $"{m.DeclaringType!.Name}.{m.Name}"));
    }
}
