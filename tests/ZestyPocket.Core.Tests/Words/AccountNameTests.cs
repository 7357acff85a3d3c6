using ZestyPocket.Core.Words;

namespace ZestyPocket.Core.Tests.Words;

/// <summary>Names that look alike. Source: Unicode Technical Standard #39, confusables, from memory.</summary>
public sealed class AccountNameTests
{
    [Theory]
    [InlineData("Ada", "Аda")]
    [InlineData("Ada", "аdа")]
    [InlineData("Oma", "0ma")]
    [InlineData("Bill", "BiIl")]
    [InlineData("Ada", "Adá")]
    [InlineData("Anna Lee", "AnnaLee")]
    [InlineData("Ada", "ＡＤＡ")]
    [InlineData("Eve", "Еvе")]
    [InlineData("Ron", "Rοn")]
    public void Names_that_look_alike_have_one_look(string one, string other) =>
        AccountName.Look(one).ShouldBe(AccountName.Look(other));

    [Theory]
    [InlineData("Ada", "Eda")]
    [InlineData("Ольга", "Олена")]
    [InlineData("奈央", "奈緒")]
    [InlineData("Ben", "Benno")]
    public void Different_names_look_different(string one, string other) =>
        AccountName.Look(one).ShouldNotBe(AccountName.Look(other));

    [Theory]
    [InlineData("A\u200Bda")]
    [InlineData("Ada\u00AD")]
    [InlineData("\u2060Ada")]
    [InlineData("\u3164")]
    [InlineData("...")]
    [InlineData("A\uD800da")]
    public void Signs_that_nobody_sees_are_no_part_of_a_name(string typed) =>
        Should.Throw<RuleException>(() => AccountName.Of(typed)).Message.ShouldContain("everybody sees");

    [Theory]
    [InlineData(" Ада ", "Ада")]
    [InlineData("ＡＤＡ", "ADA")]
    [InlineData("Oma Grün", "Oma Grün")]
    public void A_name_in_any_script_is_kept_in_its_plain_letters(string typed, string name) =>
        AccountName.Of(typed).ShouldBe(name);
}
