using Solvenda.Core.Documents.Events;

namespace Solvenda.Web.Dossiers;

/// <summary>Words for what was set up: authority, policies, people, keys.</summary>
internal static class SetupWords
{
    /// <summary>Null for what is no such event.</summary>
    public static EventWord? Of(IEvent facts) =>
        facts switch
        {
            AuthoritySet e => new(
                FormattableString.Invariant(
                    $"{e.Whose} may decide alone, {e.Kind} from {e.From:d MMM yyyy}{(e.First ? ", the first who may" : "")}{(e.AgreedBy is { } by ? $", agreed by {by}" : "")}"
                ),
                e.Before,
                e.After
            ),
            AuthorityProposed e => new($"proposed for {e.Whose}, {e.Kind}", e.Before, e.After),
            AuthorityDropped e => new($"not agreed to for {e.Whose}, {e.Kind}", e.After, null),
            AwaySet e => new(
                FormattableString.Invariant(
                    $"{e.Who} is {(e.Gone ? "not away after all" : "away")} {e.From:d MMM} to {e.To:d MMM}{(e.StandIn is { } s ? $", {s} stands in" : "")}"
                )
            ),
            ReportsToSet e => new($"{e.Who} reports to", e.Before ?? "nobody", e.After ?? "nobody"),
            PolicySaved e => new(
                e.After is null ? $"{e.Policy} dropped" : $"{e.Policy}{(e.Holds ? "" : ", not holding")}",
                e.Before,
                e.After
            ),
            PersonInvited e => new($"{e.Name} invited as {e.Login}", null, e.Roles),
            PersonSwitched e => new(
                $"{e.Name} switched {(e.On ? "on" : "off")}{(e.To is { } to ? $", {e.Handed} things to {to}" : "")}"
            ),
            SecretSet { What: "password" } e => new($"{e.Name} set a password"),
            SecretSet { What: "factor" } e => new($"{e.Name} set a second factor"),
            SecretSet e => new($"the second factor of {e.Name} was taken off"),
            SessionsEnded e => new($"{e.Sessions} sessions of {e.Name} ended"),
            KeyChanged e => new(
                FormattableString.Invariant(
                    $"key {e.Name} {(e.Revoked ? "revoked" : "made")}{(e.Expires is { } day ? $", to {day:d MMM yyyy}" : "")}"
                ),
                null,
                e.Scopes
            ),
            WaySet e => new(
                $"{e.Channel}{(e.Buyer is { } b ? $" for {b}" : "")}",
                e.Before.Length > 0 ? e.Before : null,
                e.After
            ),
            HolidaysFilled e => new($"{e.Days} holidays of {e.Country} {e.Year} put in"),
            NoticesSeen e => new($"{e.Notices} notices seen"),
            _ => null,
        };
}
