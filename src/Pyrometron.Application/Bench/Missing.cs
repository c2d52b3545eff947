using Pyrometron.Core.Messages;

namespace Pyrometron.Application.Bench;

/// <summary>Things that are asked for and not there.</summary>
internal static class Missing
{
    public static NotThereException Machine(string tag) =>
        new(Message.Of("There is no machine '{asset}'.", Value.Text("asset", tag)));

    public static NotThereException Zone(string code) => new(Message.Of("There is no zone '{zone}'.", Value.Text("zone", code)));

    public static NotThereException Job(long id) => new(Message.Of("There is no job {job}.", Value.Count("job", id)));
}
