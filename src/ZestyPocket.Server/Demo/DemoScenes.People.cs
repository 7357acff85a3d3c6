using SkiaSharp;

namespace ZestyPocket.Server.Demo;

/// <summary>The household seen from near, and what its hands are at.</summary>
public sealed partial class DemoScenes
{
    private sealed record Person(
        uint Skin,
        uint Hair,
        uint Coat,
        bool Long = false,
        bool Beard = false,
        bool Child = false
    );

    private static readonly Person Ada = new(0xE2B48F, 0x6B3A22, 0x4F6B4A, Long: true);
    private static readonly Person Ben = new(0xD9A981, 0x2E241D, 0x2F5D74, Beard: true);
    private static readonly Person Junie = new(0xE6BC98, 0xB07A3C, 0xE0B23C, Long: true, Child: true);
    private static readonly Person Nan = new(0xE0B79B, 0xE4E0DA, 0x8A5A7A);

    private static readonly Person[] Household = [Ada, Ben, Junie, Nan];

    private Person Somebody() => Household[_dice.Next(Household.Length)];

    /// <summary>Head and shoulders; the size is the radius of the head.</summary>
    private void Bust(Person who, float x, float y, float r, float look = 0)
    {
        var (skin, hair, coat) = (Hex(who.Skin), Hex(who.Hair), Hex(who.Coat));
        if (who.Long)
        {
            Oval(x, y + (r * 0.25f), r * 1.16f, r * 1.35f, 0, Mix(hair, SKColors.Black, 0.2f));
        }

        Oval(x, y + (r * 2.35f), r * 1.75f, r * 1.25f, 0, coat);
        Box(x - (r * 0.32f), y + (r * 0.7f), r * 0.64f, r * 0.6f, Mix(skin, SKColors.Black, 0.12f));
        Oval(x, y, r * 0.86f, r, 0, skin);
        Blurred(
            r * 0.2f,
            () => Oval(x + (r * 0.4f), y + (r * 0.2f), r * 0.3f, r * 0.6f, 0, new SKColor(60, 20, 0, 50))
        );
        Oval(x, y - (r * 0.68f), r * 0.9f, r * 0.48f, 0, hair);
        if (!who.Long)
        {
            Oval(x - (r * 0.78f), y - (r * 0.25f), r * 0.16f, r * 0.42f, 0, hair);
            Oval(x + (r * 0.78f), y - (r * 0.25f), r * 0.16f, r * 0.42f, 0, hair);
        }

        if (who.Beard)
        {
            Oval(x, y + (r * 0.62f), r * 0.62f, r * 0.42f, 0, Mix(hair, skin, 0.15f));
        }

        foreach (var side in new[] { -1, 1 })
        {
            var ex = x + (side * r * 0.33f) + (look * r * 0.12f);
            Oval(ex, y - (r * 0.05f), r * 0.1f, r * 0.07f, 0, Hex(0xF7F2EA));
            Circle(ex + (look * r * 0.04f), y - (r * 0.05f), r * 0.055f, Hex(0x2B1F18));
            Line(
                ex - (r * 0.13f),
                y - (r * 0.22f),
                ex + (r * 0.13f),
                y - (r * 0.24f),
                r * 0.05f,
                Mix(hair, skin, 0.2f)
            );
            Blurred(
                r * 0.1f,
                () => Circle(x + (side * r * 0.45f), y + (r * 0.28f), r * 0.16f, new SKColor(225, 110, 90, 80))
            );
        }

        Oval(x + (look * r * 0.14f), y + (r * 0.2f), r * 0.08f, r * 0.12f, 0, Mix(skin, Hex(0x8A4A30), 0.3f));
        Smile(x + (look * r * 0.1f), y + (r * 0.48f), r * 0.3f);
    }

    private void Smile(float x, float y, float wide)
    {
        for (var i = 0; i < 8; i++)
        {
            var (a, b) = ((i / 8f * 2) - 1, ((i + 1) / 8f * 2) - 1);
            Line(
                x + (a * wide),
                y + (wide * 0.35f * (1 - (a * a))),
                x + (b * wide),
                y + (wide * 0.35f * (1 - (b * b))),
                wide * 0.14f,
                Hex(0x9A3F35)
            );
        }
    }

    private void SoftGround(params uint[] colours)
    {
        Gradient(0, 1, Pick(colours), Mix(Pick(colours), SKColors.Black, 0.35f));
        Blurred(
            0.05f,
            () =>
            {
                for (var i = 0; i < 22; i++)
                {
                    Circle(At(0, _width), Chance(), Between(0.04f, 0.12f), Pick(colours).WithAlpha(120));
                }
            }
        );
    }

    private void Portrait()
    {
        SoftGround(0x7FA06A, 0xB8C98A, 0x55764A, 0xE3D9A8);
        var who = Somebody();
        Bust(who, _width * Between(0.4f, 0.6f), 0.44f, who.Child ? 0.22f : 0.25f, Between(-1, 1));
    }

    private void Cheek()
    {
        SoftGround(0xC8A27A, 0x8A6A55, 0xE7CFA0, 0x6C5A70);
        var first = _dice.Next(Household.Length);
        Bust(Household[first], _width * 0.34f, 0.46f, 0.2f, 0.6f);
        Bust(Household[(first + 1 + _dice.Next(3)) % 4], _width * 0.64f, 0.5f, 0.19f, -0.6f);
    }

    private void Knitting()
    {
        Gradient(0, 1, Hex(0x9C8A70), Hex(0x5E4E3E));
        LightPatch();
        var x = _width * 0.48f;
        Shadowed(() => Oval(x, 0.62f, 0.42f, 0.5f, 0, Pick(0x6E4A52, 0x4F5E6B, 0x7A6A3E)));
        Bust(Nan, x, 0.3f, 0.14f, Between(-0.6f, 0.6f));
        var wool = Pick(0xC8452F, 0x3B7EA1, 0xE0B23C, 0x6F8F55);
        Shadowed(() => Oval(x, 0.84f, 0.24f, 0.12f, 0.1f, wool));
        for (var i = 0; i < 26; i++)
        {
            Line(
                x - 0.22f + (i * 0.017f),
                0.78f,
                x - 0.2f + (i * 0.016f),
                0.92f,
                0.005f,
                Mix(wool, SKColors.White, 0.25f)
            );
        }

        Line(x - 0.2f, 0.86f, x + 0.08f, 0.68f, 0.011f, Hex(0xD9CDB4));
        Line(x + 0.2f, 0.86f, x - 0.06f, 0.7f, 0.011f, Hex(0xD9CDB4));
        Shadowed(() => Circle(_width * 0.87f, 0.9f, 0.08f, wool));
    }

    private void Library()
    {
        Gradient(0, 1, Hex(0x5A4636), Hex(0x33271E));
        for (var shelf = 0; shelf < 4; shelf++)
        {
            for (var x = 0f; x < _width; )
            {
                var (w, h) = (Between(0.018f, 0.04f), Between(0.13f, 0.18f));
                Box(
                    x,
                    0.21f + (shelf * 0.21f) - h,
                    w,
                    h,
                    Pick(0x8B3A2E, 0x2F5568, 0xC9A44C, 0x55694A, 0xD9CBB2, 0x5A3F5E)
                );
                x += w + 0.003f;
            }

            Box(0, 0.21f + (shelf * 0.21f), _width, 0.02f, Hex(0x8A623C));
        }

        Wood(Hex(0x8A6A48), Hex(0x5B4228), 0.86f);
        Blurred(0.12f, () => Circle(_width * 0.5f, 0.6f, 0.4f, new SKColor(255, 220, 150, 70)));
        Bust(Junie, _width * 0.5f, 0.6f, 0.12f, 0.2f);
        Shadowed(() =>
            Poly(
                Hex(0xF4EEDF),
                (_width * 0.36f, 0.86f),
                (_width * 0.5f, 0.9f),
                (_width * 0.64f, 0.86f),
                (_width * 0.66f, 0.97f),
                (_width * 0.5f, 1f),
                (_width * 0.34f, 0.97f)
            )
        );
    }

    private void Piano()
    {
        Gradient(0, 0.45f, Hex(0x1F1A18), Hex(0x3A2D26));
        Box(0, 0.45f, _width, 0.5f, Hex(0xF3EEE2));
        var key = 0.085f;
        for (var i = 0; i * key < _width + key; i++)
        {
            Line(i * key, 0.45f, i * key, 0.95f, 0.004f, Hex(0x9A9284));
            if (i % 7 is not (2 or 6))
            {
                Shadowed(() => Box((i * key) + (key * 0.68f), 0.45f, key * 0.6f, 0.3f, Hex(0x191615)));
            }
        }

        Box(0, 0.95f, _width, 0.06f, Hex(0x2B211B));
        foreach (var (x, turn) in new[] { (_width * 0.32f, 0.15f), (_width * 0.66f, -0.15f) })
        {
            Shadowed(() => Oval(x, 0.93f, 0.12f, 0.09f, turn, Hex(0xE2B48F)));
            for (var f = 0; f < 4; f++)
            {
                var from = x - 0.09f + (f * 0.055f);
                Line(from, 0.9f, from + (turn * 0.1f), 0.72f + (MathF.Abs(f - 1.5f) * 0.02f), 0.04f, Hex(0xE2B48F));
            }
        }
    }

    private void Cake()
    {
        Gradient(0, 1, Hex(0x2A2230), Hex(0x15111A));
        Blurred(0.12f, () => Circle(_width / 2, 0.4f, 0.42f, new SKColor(255, 170, 70, 120)));
        Bust(_dice.Next(2) == 0 ? Nan : Junie, _width * 0.5f, 0.28f, 0.15f);
        Shadowed(() => Oval(_width / 2, 0.86f, 0.4f, 0.13f, 0, Hex(0xE8E0D2)));
        Box(_width / 2 - 0.3f, 0.68f, 0.6f, 0.16f, Pick(0xD98C8C, 0xF0E2C8, 0x8A5A3A));
        Oval(_width / 2, 0.84f, 0.3f, 0.07f, 0, Hex(0xB9705F));
        Oval(_width / 2, 0.68f, 0.3f, 0.075f, 0, Hex(0xF7EFE0));
        for (var i = 0; i < 8; i++)
        {
            var x = _width / 2 - 0.24f + (i * 0.068f);
            var foot = 0.69f - (0.03f * MathF.Sin(i));
            Box(x, foot - 0.11f, 0.014f, 0.11f, Pick(0x3B7EA1, 0xE0B23C, 0xC8452F, 0x6F8F55));
            Blurred(0.02f, () => Circle(x + 0.007f, foot - 0.13f, 0.03f, new SKColor(255, 200, 90, 200)));
            Oval(x + 0.007f, foot - 0.13f, 0.008f, 0.02f, 0, Hex(0xFFF0B0));
        }
    }

    private void DrawingOnTheFloor()
    {
        Wood(Hex(0xB08A5E), Hex(0x8A6540));
        LightPatch();
        for (var i = 0; i < 4; i++)
        {
            var (x, y, turn) = (_width * Between(0.15f, 0.85f), Between(0.15f, 0.8f), Between(-25, 25));
            _canvas.Save();
            _canvas.RotateDegrees(turn, x, y);
            Shadowed(() => Box(x - 0.2f, y - 0.14f, 0.4f, 0.28f, Hex(0xFBF7EC)));
            Circle(x + 0.12f, y - 0.08f, 0.035f, Hex(0xF2B230));
            Box(x - 0.14f, y + 0.0f, 0.12f, 0.09f, Pick(0xC8452F, 0x3B7EA1));
            Poly(Hex(0x7A4034), (x - 0.16f, y), (x - 0.08f, y - 0.07f), (x, y));
            for (var g = 0; g < 12; g++)
            {
                Line(x - 0.18f + (g * 0.031f), y + 0.12f, x - 0.175f + (g * 0.031f), y + 0.09f, 0.006f, Hex(0x5E8A40));
            }

            _canvas.Restore();
        }

        for (var i = 0; i < 9; i++)
        {
            var (x, y, a) = (At(0, _width), Chance(), Chance() * 6.3f);
            Shadowed(() =>
                Line(
                    x,
                    y,
                    x + (0.11f * MathF.Cos(a)),
                    y + (0.11f * MathF.Sin(a)),
                    0.014f,
                    Pick(0xC8452F, 0x3B7EA1, 0xE0B23C, 0x5E8A40, 0x8A5A7A)
                )
            );
        }

        Shadowed(() => Oval(_width * 0.5f, 1.02f, 0.16f, 0.12f, 0, Hex(Junie.Hair)));
        Shadowed(() => Oval(_width * 0.62f, 0.9f, 0.05f, 0.035f, 0.6f, Hex(Junie.Skin)));
    }

    private void Swimming()
    {
        Gradient(0, 0.3f, Hex(0x6F8F55), Hex(0x3F5F38));
        Leaves(0.13f);
        Water(0.3f, 1f);
        foreach (var (who, x, y, r) in new[] { (Junie, 0.35f, 0.62f, 0.075f), (Ben, 0.66f, 0.54f, 0.07f) })
        {
            Bust(who, _width * x, y, r);
            Blurred(0.01f, () => Box((_width * x) - 0.2f, y + (r * 1.25f), 0.4f, 0.32f, Hex(0x55808F)));
            for (var ring = 1; ring < 4; ring++)
            {
                Line(
                    (_width * x) - (0.09f * ring),
                    y + (r * 1.3f) + (0.03f * ring),
                    (_width * x) + (0.09f * ring),
                    y + (r * 1.3f) + (0.03f * ring),
                    0.006f,
                    new SKColor(255, 255, 255, 120)
                );
            }
        }
    }

    private void Bonfire()
    {
        Gradient(0, 1, Hex(0x171A30), Hex(0x1B1512));
        Ridge(0.5f, 0.06f, Hex(0x12141C));
        var x = _width * 0.5f;
        Blurred(0.14f, () => Circle(x, 0.72f, 0.36f, new SKColor(255, 140, 40, 170)));
        foreach (var (who, side) in new[] { (Ada, -0.72f), (Ben, 0.72f), (Nan, -0.36f) })
        {
            Bust(who, x + (side * _width * 0.42f), 0.5f, 0.075f, -side);
        }

        for (var i = 0; i < 5; i++)
        {
            Line(x - 0.14f, 0.84f + (0.01f * i), x + 0.14f, 0.78f + (0.03f * i), 0.025f, Hex(0x3A2418));
        }

        for (var i = 0; i < 16; i++)
        {
            Blurred(
                0.008f,
                () =>
                    Oval(
                        x + Between(-0.1f, 0.1f),
                        0.78f - Between(0, 0.22f),
                        0.028f,
                        0.08f,
                        Between(-0.3f, 0.3f),
                        Pick(0xFFD25A, 0xFF9A33, 0xFFF0B0, 0xE8581E).WithAlpha(190)
                    )
            );
        }

        for (var i = 0; i < 40; i++)
        {
            Circle(x + Between(-0.3f, 0.3f), Between(0.05f, 0.7f), 0.003f, new SKColor(255, 190, 90, 200));
        }
    }

    private void Silhouettes()
    {
        Gradient(0, 0.8f, Hex(0x37406E), Hex(0xF3A262));
        Blurred(0.06f, () => Circle(_width * 0.5f, 0.66f, 0.16f, new SKColor(255, 230, 170, 220)));
        Gradient(0.76f, 1, Hex(0x1B1612), Hex(0x0D0A08));
        var (x, count) = (_width * 0.25f, 0);
        foreach (var tall in new[] { 0.34f, 0.36f, 0.24f, 0.31f })
        {
            var ink = Hex(0x15100E);
            var at = x + (count++ * _width * 0.17f);
            Box(at - (tall * 0.1f), 0.82f - (tall * 0.45f), tall * 0.09f, tall * 0.45f, ink);
            Box(at + (tall * 0.02f), 0.82f - (tall * 0.45f), tall * 0.09f, tall * 0.45f, ink);
            Oval(at, 0.82f - (tall * 0.6f), tall * 0.16f, tall * 0.26f, 0, ink);
            Circle(at, 0.82f - (tall * 0.95f), tall * 0.11f, ink);
            // Hand in hand, each at half the way to the next.
            Line(at, 0.82f - (tall * 0.7f), at + (_width * 0.085f), 0.69f, 0.016f, ink);
            Line(at, 0.82f - (tall * 0.7f), at - (_width * 0.085f), 0.69f, 0.016f, ink);
        }
    }
}
