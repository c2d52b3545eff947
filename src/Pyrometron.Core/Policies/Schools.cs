namespace Pyrometron.Core.Policies;

/// <summary>How much is done once a machine is open.</summary>
public enum Extent
{
    LeastThatCures,
    AllWhileOpen,
}

/// <summary>What may be done to a machine under warranty.</summary>
public enum WarrantySchool
{
    AirOnly,
    AskFirst,
    OpenWhereAllowed,
}

/// <summary>When a house has its machines served.</summary>
public enum School
{
    /// <summary>By evidence or by the calendar, whichever comes first.</summary>
    WhicheverFirst,

    /// <summary>By the calendar; evidence only when a machine is already in trouble.</summary>
    Calendar,

    /// <summary>By evidence alone.</summary>
    Evidence,

    /// <summary>Only when a machine is in trouble.</summary>
    Failure,
}

/// <summary>What goes first within one urgency.</summary>
public enum Precedence
{
    /// <summary>
    /// What stands furthest beyond the thresholds; between those that stand alike, what brings most for an hour of work.
    /// </summary>
    Evidence,

    /// <summary>What brings most for an hour of work.</summary>
    Value,
}
