namespace Pyrometron.Core.Cutting;

/// <summary>A cut from edge to edge of what it divides, in hundredths of a millimetre from the sheet's upper left.</summary>
public readonly record struct KnifeCut(int FromX, int FromY, int ToX, int ToY);

/// <summary>What is left of a sheet and large enough to be used again.</summary>
public readonly record struct OffCut(int X, int Y, Size Size);

/// <summary>The order in which a sheet is cut, and what is left of it.</summary>
/// <param name="Cuts">The first one goes first; each divides what the ones before it have left whole.</param>
public sealed record CutOrder(IReadOnlyList<KnifeCut> Cuts, IReadOnlyList<OffCut> OffCuts);

/// <summary>
/// Finds for pieces on a sheet the cuts that a knife makes. The cut that sets the largest off-cut free goes first; where it
/// leaves a strip beside a piece that is thinner than the knife's cut takes, and so cannot be trimmed, the next one is tried.
/// </summary>
public static class KnifeCuts
{
    private readonly record struct Room(int X, int Y, int Right, int Bottom)
    {
        public Size Size => new(Right - X, Bottom - Y);
    }

    /// <summary>Where a room is divided.</summary>
    /// <param name="Free">The area of the larger part that holds no piece; 0 where both hold some.</param>
    private readonly record struct Divide(bool Upright, int At, long Free);

    /// <summary>The cuts of a sheet.</summary>
    /// <param name="sheet">Its size.</param>
    /// <param name="kerf">What each cut takes away.</param>
    /// <param name="pieces">Where they lie; the knife passes beside them.</param>
    /// <param name="least">What is narrower than this in any direction is waste.</param>
    /// <exception cref="ArgumentException">No knife can cut them: no cut from edge to edge passes between them.</exception>
    public static CutOrder Of(Size sheet, int kerf, IReadOnlyList<PlacedPiece> pieces, int least)
    {
        var (cuts, offCuts) = (new List<KnifeCut>(), new List<OffCut>());
        // Which pieces lie in a room follows from the room.
        var hopeless = new HashSet<Room>();
        return Cut(new Room(0, 0, sheet.Width, sheet.Height), [.. pieces])
            ? new CutOrder(cuts, offCuts)
            : throw new ArgumentException("No cut from edge to edge passes between these pieces.", nameof(pieces));

        bool Cut(Room room, List<PlacedPiece> inside)
        {
            if (inside.Count == 0)
            {
                if (room.Size.Width >= least && room.Size.Height >= least)
                    offCuts.Add(new OffCut(room.X, room.Y, room.Size));
                return true;
            }
            if (inside is [var one] && one.Size == room.Size)
                return true;
            if (hopeless.Contains(room))
                return false;
            foreach (var divide in Divides(room, inside, kerf).OrderByDescending(d => d.Free))
            {
                var (known, kept) = (cuts.Count, offCuts.Count);
                if (Part(room, inside, divide))
                    return true;
                cuts.RemoveRange(known, cuts.Count - known);
                offCuts.RemoveRange(kept, offCuts.Count - kept);
            }
            hopeless.Add(room);
            return false;
        }

        bool Part(Room room, List<PlacedPiece> inside, Divide divide)
        {
            var at = divide.At;
            cuts.Add(divide.Upright ? new KnifeCut(at, room.Y, at, room.Bottom) : new KnifeCut(room.X, at, room.Right, at));
            var before = divide.Upright ? room with { Right = at } : room with { Bottom = at };
            var after = divide.Upright
                ? room with
                {
                    X = Math.Min(at + kerf, room.Right),
                }
                : room with
                {
                    Y = Math.Min(at + kerf, room.Bottom),
                };
            return Cut(before, inside.FindAll(p => (divide.Upright ? p.X : p.Y) < at))
                && Cut(after, inside.FindAll(p => (divide.Upright ? p.X : p.Y) >= at));
        }
    }

    private static IEnumerable<Divide> Divides(Room room, List<PlacedPiece> inside, int kerf)
    {
        foreach (var upright in (bool[])[true, false])
        {
            var (from, to) = upright ? (room.X, room.Right) : (room.Y, room.Bottom);
            long across = upright ? room.Size.Height : room.Size.Width;
            var spans = inside.ConvertAll(p =>
                upright ? (From: p.X, To: p.X + p.Size.Width) : (From: p.Y, To: p.Y + p.Size.Height)
            );
            // Behind a piece, or just before one where something is left in front of it.
            var places = spans.Select(s => s.To).Concat(spans.Select(s => Math.Max(from, s.From - kerf))).Distinct();
            foreach (var at in places)
            {
                // A strip thinner than the knife's cut goes with it, so a cut may reach beyond the edge.
                if (at >= to || (at == from && spans.Exists(s => s.From < from + kerf || kerf == 0)))
                    continue;
                if (spans.Exists(s => s.From < at + kerf && s.To > at))
                    continue;
                var (before, after) = (spans.Exists(s => s.To <= at), spans.Exists(s => s.From >= at));
                long free =
                    !after ? to - Math.Min(at + kerf, to)
                    : !before ? at - from
                    : 0;
                yield return new Divide(upright, at, free * across);
            }
        }
    }
}
