namespace Pyrometron.Core.Access;

/// <summary>What somebody may do. Each use case asks for one of them.</summary>
public enum Right
{
    /// <summary>Look at everything in the house but its accounts.</summary>
    Look,

    /// <summary>Look at the machines that are their own.</summary>
    LookAtOwn,

    /// <summary>Work on machines: jobs, reports, notes on models, what is taken from the shelf.</summary>
    Work,

    /// <summary>Decide who works on what when: the plan, visits, campaigns, machines set aside.</summary>
    Plan,

    /// <summary>Decide what stands on the shelf: products, lots, prices.</summary>
    KeepStores,

    /// <summary>Change what is known of machines, zones, services and readings; take in files.</summary>
    KeepMachines,

    /// <summary>Change the rules by which machines are judged.</summary>
    KeepRules,

    /// <summary>Change who works in the house, when, and who is told what.</summary>
    KeepPeople,

    /// <summary>Say who may come in, and what they may; make backups and lay them back.</summary>
    KeepHouse,
}

/// <summary>What somebody is in the house. Each role may what the one before it may, and more; an owner is apart.</summary>
public enum Role
{
    /// <summary>Has machines that others look after: sees those alone.</summary>
    Owner,

    /// <summary>Looks, and changes nothing.</summary>
    Reader,

    /// <summary>Works at the bench.</summary>
    Technician,

    /// <summary>Plans the weeks and keeps the stores.</summary>
    Planner,

    /// <summary>Keeps rules, machines and people.</summary>
    Keeper,

    /// <summary>Keeps the house: accounts and backups.</summary>
    Administrator,
}

/// <summary>What each role may.</summary>
public static class Roles
{
    /// <summary>The rights of a role.</summary>
    public static IReadOnlySet<Right> RightsOf(Role role) => Of[role];

    private static readonly Dictionary<Role, IReadOnlySet<Right>> Of = Make();

    private static Dictionary<Role, IReadOnlySet<Right>> Make()
    {
        HashSet<Right> reader = [Right.Look];
        HashSet<Right> technician = [.. reader, Right.Work];
        HashSet<Right> planner = [.. technician, Right.Plan, Right.KeepStores];
        HashSet<Right> keeper = [.. planner, Right.KeepMachines, Right.KeepRules, Right.KeepPeople];
        return new()
        {
            [Role.Owner] = new HashSet<Right> { Right.LookAtOwn },
            [Role.Reader] = reader,
            [Role.Technician] = technician,
            [Role.Planner] = planner,
            [Role.Keeper] = keeper,
            [Role.Administrator] = new HashSet<Right>([.. keeper, Right.KeepHouse]),
        };
    }
}
