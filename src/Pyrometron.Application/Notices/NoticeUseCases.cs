using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Notices;
using Pyrometron.Core.Weeks;
using Pyrometron.Storage;

namespace Pyrometron.Application.Notices;

/// <summary>What is new is noticed once; people choose what they are told of, and how.</summary>
public sealed class NoticeUseCases(Database database, TimeProvider clock)
{
    /// <summary>Holds what is so on a day against what was noticed before.</summary>
    /// <param name="day">The first such day is what the house begins with, and no news.</param>
    public void Notice(DateOnly day, IReadOnlyList<Condition> conditions) =>
        Write(
            Actor.Program,
            t =>
            {
                if (AboutStore.WatchedSince(t) is not { } since)
                    AboutStore.SetWatchedSince(t, since = day);
                var change = NoticeLedger.On(day, NoticeStore.All(t), conditions);
                NoticeStore.Keep(t, day, change, areNews: day > since);
            }
        );

    /// <summary>Keeps what somebody chose.</summary>
    /// <exception cref="NotThereException">Nobody has that code.</exception>
    public void Keep(Actor actor, Subscription subscription) =>
        Write(
            actor.Allowed(Right.KeepPeople),
            t =>
            {
                var person = Find(t, subscription.Person);
                NoticeStore.Keep(t, subscription);
                t.Log(
                    new Change("people", Message.Of("What {person} is told of", Value.Text("person", person.Name)))
                    {
                        After = string.Join(", ", subscription.Shown.Order().Select(Words.Of)),
                    }
                );
            }
        );

    /// <summary>Gives somebody's program a secret; the one before is worth nothing from then on.</summary>
    /// <param name="secret">As it is handed out.</param>
    /// <exception cref="NotThereException">Nobody has that code.</exception>
    /// <exception cref="NotPossibleException">They have no program to call.</exception>
    public void GiveSecret(Actor actor, string person, string secret) =>
        Write(
            actor.Allowed(Right.KeepPeople),
            t =>
            {
                var who = Find(t, person);
                if (NoticeStore.Of(t, person)?.WebhookUrl is null)
                    throw new NotPossibleException("Give the address of the program first.");
                NoticeStore.KeepSecret(t, person, secret);
                t.Log(
                    new Change("people", Message.Of("A new secret for the program of {person}", Value.Text("person", who.Name)))
                );
            }
        );

    /// <summary>Makes something to send.</summary>
    /// <param name="notices">What it tells; none for a test.</param>
    /// <returns>Its number.</returns>
    /// <exception cref="NotThereException">Nobody has that code.</exception>
    public long Prepare(string person, NoticeChannel channel, IEnumerable<Notice> notices) =>
        Write(
            Actor.Program,
            t =>
            {
                Find(t, person);
                return DeliveryStore.Add(t, person, channel, $"n-{Guid.NewGuid():N}", notices.Select(n => n.Id));
            }
        );

    /// <summary>Makes somebody's mail of a day, and notes that its time has come even where there is nothing to tell.</summary>
    public void PrepareMail(string person, IReadOnlyCollection<Notice> notices) =>
        Write(
            Actor.Program,
            t =>
            {
                DeliveryStore.NoteMailTime(t, person);
                if (notices.Count > 0)
                    DeliveryStore.Add(t, person, NoticeChannel.Mail, $"n-{Guid.NewGuid():N}", notices.Select(n => n.Id));
            }
        );

    /// <summary>Notes how an attempt ended.</summary>
    public void Note(long delivery, DeliveryState state, DateTimeOffset? next, Message? says) =>
        Write(Actor.Program, t => DeliveryStore.Note(t, delivery, state, next, says));

    /// <summary>Puts an attempt off.</summary>
    public void PutOff(long delivery, DateTimeOffset next) => Write(Actor.Program, t => DeliveryStore.PutOff(t, delivery, next));

    /// <summary>Has something that was given up tried again.</summary>
    /// <exception cref="NotPossibleException">It was not given up.</exception>
    public void TryAgain(Actor actor, long delivery) =>
        Write(
            actor.Allowed(Right.KeepPeople),
            t =>
            {
                if (!DeliveryStore.TryAgain(t, delivery))
                    throw new NotPossibleException("Only what was given up is tried again; this was not.");
            }
        );

    private static Person Find(Transaction t, string code) =>
        PeopleStore.All(t).FirstOrDefault(p => p.Code == code)
        ?? throw new NotThereException(Message.Of("Nobody has the code '{code}'.", Value.Text("code", code)));

    private void Write(Actor actor, Action<Transaction> work) => database.Write(actor, clock.GetUtcNow(), work);

    private T Write<T>(Actor actor, Func<Transaction, T> work) => database.Write(actor, clock.GetUtcNow(), work);
}
