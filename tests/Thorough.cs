namespace ZestyPocket.Tests;

/// <summary>
/// How many cases a long check goes through: a share of them each time, all of them with <c>./test --thorough</c>.
/// </summary>
internal static class Thorough
{
    public static readonly bool IsAsked = Environment.GetEnvironmentVariable("ZESTY_THOROUGH") == "yes";

    public static int Of(int all, int usual) => IsAsked ? all : usual;
}
