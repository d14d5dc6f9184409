using CsCheck;
using Solvenda.Core.People;
using Xunit;

namespace Solvenda.Core.Tests.People;

/// <summary>Passwords that are guessed at once are refused, and no others.</summary>
public sealed class PasswordTests
{
    [Theory]
    [InlineData("password1234")]
    [InlineData("Passw0rd2026!")]
    [InlineData("1234567890123")]
    [InlineData("qwertyuiop12")]
    [InlineData("letmeinletmein")]
    [InlineData("aaaaaaaabbbb")]
    [InlineData("abcdefghijklm")]
    [InlineData("!!welcome2026!!")]
    [InlineData("brinemoor2026")]
    [InlineData("sorchaquill12")]
    [InlineData("elevenchars")]
    public void What_is_tried_first_is_refused(string password) =>
        Assert.NotNull(Passwords.Wrong(password, "sorchaquill", "Sorcha Quill", "Brinemoor Cordage"));

    [Theory]
    [InlineData("a quay at low water")]
    [InlineData("nine fathoms deep")]
    [InlineData("Tr8-lantern-moss")]
    [InlineData("password of the tide")]
    public void What_is_not_is_taken(string password) =>
        Assert.Null(Passwords.Wrong(password, "sorchaquill", "Sorcha Quill", "Brinemoor Cordage"));

    [Fact]
    public void Too_many_characters_are_no_password() =>
        Assert.NotNull(Passwords.Wrong(string.Concat(Enumerable.Repeat("a tide ", 30))));

    [Fact]
    public void Whatever_is_typed_is_answered() =>
        Gen.String.Sample(text => Assert.True(Passwords.Wrong(text, text, "x") is null or { Length: > 0 }));
}
