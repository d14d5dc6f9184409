using System.Collections.Immutable;

namespace Solvenda.Core.Ledger;

/// <summary>What an account is used for: the rules of posting name uses, the house says which account has
/// one.</summary>
public enum AccountUse
{
    /// <summary>By hand alone: no rule posts there.</summary>
    None,

    /// <summary>What buyers owe.</summary>
    Receivable,

    /// <summary>Where money comes in.</summary>
    Bank,

    /// <summary>What sales channels hold for us until they pay it out.</summary>
    AtChannels,

    /// <summary>Money of buyers that nothing was taken of yet.</summary>
    OnAccount,

    /// <summary>What was sold; one account for all taxes, or one for a category.</summary>
    Revenue,

    /// <summary>Tax that is owed.</summary>
    TaxOwed,

    /// <summary>What a rate of exchange brought or took.</summary>
    Exchange,

    /// <summary>Small differences that were written off.</summary>
    Differences,

    /// <summary>What was there before the books began.</summary>
    Opening,

    /// <summary>The till: money that was paid over the counter.</summary>
    Till,

    /// <summary>What sales channels keep back for themselves.</summary>
    Fees,

    /// <summary>What buyers took off for paying early.</summary>
    EarlyPayment,
}

/// <summary>An account of the ledger.</summary>
/// <param name="TaxCategory">UNCL 5305: for this category alone; empty for all.</param>
public sealed record Account(string Code, string Words, AccountUse Use, string TaxCategory);

/// <summary>A use that no account has.</summary>
public sealed class NoAccountException(AccountUse use, string category)
    : Exception($"No account is used for {use}{(category.Length > 0 ? $" of tax category {category}" : "")}.")
{
    /// <summary>What is missing.</summary>
    public AccountUse Use { get; } = use;
}

/// <summary>The accounts of the house.</summary>
public sealed class Chart(IEnumerable<Account> accounts)
{
    private readonly ImmutableArray<Account> _accounts = [.. accounts];

    /// <summary>Code of the account for a use: the one for that tax category before the one for all.</summary>
    /// <exception cref="NoAccountException">There is none.</exception>
    public string For(AccountUse use, string category = "") =>
        (
            _accounts.FirstOrDefault(a => a.Use == use && a.TaxCategory == category)
            ?? _accounts.FirstOrDefault(a => a.Use == use && a.TaxCategory.Length == 0)
            ?? throw new NoAccountException(use, category)
        ).Code;
}
