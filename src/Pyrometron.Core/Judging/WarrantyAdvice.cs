using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;

namespace Pyrometron.Core.Judging;

/// <summary>What the maker's warranty means for the work that is advised: the same wherever the machine is shown.</summary>
/// <param name="Until">Its last day.</param>
/// <param name="OpenableFrom">From when on the house opens it without asking.</param>
/// <param name="Wait">Whether that is so near that it is better to wait for it.</param>
/// <param name="Says">The advice, one sentence or two.</param>
public sealed record WarrantyAdvice(DateOnly Until, DateOnly OpenableFrom, bool Wait, Message Says)
{
    /// <summary>An end so near is waited for, days, unless the machine is pressing now. Common practice, no source.</summary>
    public const int WaitDays = 60;

    /// <summary>Null where no warranty runs, nothing is to be done, or the house opens machines under warranty.</summary>
    internal static WarrantyAdvice? Of(Assessment a)
    {
        if (
            a.Service is not { } service
            || service == ServiceLevel.Inspect
            || !a.Asset.UnderWarranty(a.AsOf)
            || a.Policy.Warranty == WarrantySchool.OpenWhereAllowed
        )
            return null;
        var (last, from) = (a.Asset.WarrantyUntil!.Value, a.Asset.WarrantyUntil!.Value.AddDays(1));
        var opens = ServiceEffects.Opens(service);
        var near = last.DayNumber - a.AsOf.DayNumber < WaitDays;
        var wait = near && opens && a.Urgency != Urgency.Now;
        var until = Value.Day("until", last);
        var air = Value.Kelvin("air", a.WorstPart is { } worst ? a.Won(worst, ServiceLevel.BlowOut) : 0);
        var says = (a.Policy.Warranty, opens) switch
        {
            _ when wait => Message.Of(
                "Under warranty until {until}: wait for that, and open it from {from} on.",
                until,
                Value.Day("from", from)
            ),
            (WarrantySchool.AirOnly, false) when near && a.WorstPart is { } most => Message.Of(
                "Under warranty until {until}: this house then uses air only, which should win about {air} of {all}. For the rest open it from {from} on.",
                until,
                air,
                Value.Kelvin("all", most.Split.Total),
                Value.Day("from", from)
            ),
            (WarrantySchool.AirOnly, false) when a.WorstPart is { } most => Message.Of(
                "Under warranty until {until}: this house then uses air only, which should win about {air} of {all}. For the rest ask its maker or seller.",
                until,
                air,
                Value.Kelvin("all", most.Split.Total)
            ),
            (WarrantySchool.AirOnly, _) => Message.Of(
                "Under warranty until {until}: this house then uses air only, which would win about {air}. For the rest ask its maker or seller.",
                until,
                air
            ),
            (_, true) => Message.Of("Under warranty until {until}: its maker or seller is asked before it is opened.", until),
            _ => null,
        };
        return says is null ? null : new WarrantyAdvice(last, from, wait, says);
    }
}
