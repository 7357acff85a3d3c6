using SkiaSharp;

namespace ZestyPocket.Server.Demo;

/// <summary>Outdoors in all weathers, near and far.</summary>
public sealed partial class DemoScenes
{
    private void RainFalls(int drops, byte strength)
    {
        for (var i = 0; i < drops; i++)
        {
            var (x, y, long_) = (At(-0.1f, _width), Chance(), Between(0.03f, 0.09f));
            Line(x, y, x - (long_ * 0.25f), y + long_, 0.0022f, new SKColor(235, 242, 250, strength));
        }
    }

    private void Umbrellas()
    {
        Gradient(0, 0.7f, Hex(0x8A949C), Hex(0xB4BABC));
        Ridge(0.5f, 0.03f, Hex(0x77818A));
        Gradient(0.66f, 1, Hex(0x6E747A), Hex(0x43484E));
        for (var i = 0; i < 4; i++)
        {
            var (x, foot, size) = (_width * (0.14f + (0.24f * i)), 0.84f + (0.05f * (i % 2)), Between(0.2f, 0.26f));
            Blurred(
                0.02f,
                () =>
                    Oval(
                        x,
                        foot + (size * 0.5f),
                        size * 0.3f,
                        size * 0.45f,
                        0,
                        Pick(0xC8452F, 0x2F5D74, 0xE0B23C).WithAlpha(60)
                    )
            );
            Figure(x, foot, size);
            var (top, wide, colour) = (
                foot - (size * 1.25f),
                size * 0.62f,
                Pick(0xC8452F, 0x2F5D74, 0xE0B23C, 0x3F6B45, 0x8A5A7A)
            );
            Line(x + (size * 0.1f), foot - (size * 0.5f), x + (size * 0.1f), top, 0.008f, Hex(0x2B2A2C));
            Poly(
                colour,
                (x - wide + (size * 0.1f), top),
                (x - (wide * 0.6f), top - (size * 0.32f)),
                (x + (size * 0.1f), top - (size * 0.46f)),
                (x + (wide * 0.8f), top - (size * 0.32f)),
                (x + wide + (size * 0.1f), top)
            );
        }

        RainFalls(160, 120);
    }

    private void Puddle()
    {
        Gradient(0, 1, Hex(0x8A8274), Hex(0x5F584E));
        for (var i = 0; i < 130; i++)
        {
            Circle(At(0, _width), Chance(), Between(0.01f, 0.03f), Mix(Hex(0x8A8274), Pick(0x3B332B, 0xC9C0AE), 0.4f));
        }

        var (x, y) = (_width * 0.5f, 0.56f);
        Oval(x, y, _width * 0.4f, 0.32f, 0.1f, Hex(0x6F8FA6));
        Blurred(0.03f, () => Oval(x - 0.1f, y - 0.06f, 0.2f, 0.13f, 0.1f, Hex(0xC9DCE6)));
        foreach (var side in new[] { -0.1f, 0.1f })
        {
            Shadowed(() => Oval(x + side, y - 0.02f, 0.07f, 0.14f, side * 2, Hex(0xE0B23C)));
            Oval(x + side, y + 0.07f, 0.05f, 0.04f, 0, Hex(0xB58A20));
        }

        for (var ring = 1; ring < 5; ring++)
        {
            Blurred(
                0.004f,
                () =>
                    Line(
                        x - (0.1f * ring),
                        y + 0.16f + (0.025f * ring),
                        x + (0.1f * ring),
                        y + 0.16f + (0.025f * ring),
                        0.006f,
                        new SKColor(255, 255, 255, 110)
                    )
            );
        }

        for (var i = 0; i < 26; i++)
        {
            Circle(
                x + Between(-0.34f, 0.34f),
                y + Between(-0.3f, 0.1f),
                Between(0.003f, 0.009f),
                new SKColor(240, 248, 255, 210)
            );
        }
    }

    private void Allotment()
    {
        Sky();
        Ridge(0.4f, 0.04f, Hex(0x7C9A62));
        Gradient(0.46f, 1, Hex(0x7A5F42), Hex(0x4F3A28));
        Shadowed(() => Box(_width * 0.7f, 0.28f, _width * 0.22f, 0.24f, Pick(0x6E7F6A, 0x8A4A3E)));
        Poly(Hex(0x4A4038), (_width * 0.67f, 0.29f), (_width * 0.81f, 0.19f), (_width * 0.95f, 0.29f));
        for (var row = 0; row < 6; row++)
        {
            var far = row / 5f;
            for (var i = 0; i < 15; i++)
            {
                var x = (_width * 0.5f) + ((i - 7) * (0.05f + (0.08f * far)));
                var y = 0.52f + (0.09f * row);
                Oval(
                    x,
                    y,
                    0.018f + (0.022f * far),
                    0.012f + (0.018f * far),
                    0,
                    row % 2 == 0 ? Pick(0x5E8A40, 0x7EA552) : Pick(0x3F6B34, 0x8FB16A, 0x7A3A4A)
                );
            }
        }

        Figure(_width * 0.3f, 0.74f, 0.22f);
        Shadowed(() => Box((_width * 0.3f) + 0.08f, 0.66f, 0.07f, 0.06f, Hex(0x6F8F9A)));
    }

    private void Bicycle()
    {
        Gradient(0, 0.8f, Pick(0xC98B6A, 0xD8C9A8, 0x9FB0A8), Hex(0x8A7560));
        for (var i = 0; i < 70; i++)
        {
            Box(At(0, _width), Chance() * 0.78f, 0.1f, 0.035f, new SKColor(90, 50, 30, 26));
        }

        Gradient(0.8f, 1, Hex(0x8A8274), Hex(0x625B50));
        var paint = Pick(0xC8452F, 0x2F5D74, 0x3F6B45);
        var (a, b, y, r) = ((_width / 2) - 0.27f, (_width / 2) + 0.27f, 0.68f, 0.19f);
        foreach (var x in new[] { a, b })
        {
            Ring(x, y, r, 0.02f, Hex(0x23222A));
            for (var s = 0; s < 10; s++)
            {
                var t = s * MathF.Tau / 10;
                Line(x, y, x + (r * MathF.Cos(t)), y + (r * MathF.Sin(t)), 0.003f, Hex(0xC9CDD0));
            }
        }

        foreach (
            var (x1, y1, x2, y2) in new[]
            {
                (a, y, a + 0.15f, 0.42f),
                (a + 0.15f, 0.42f, b - 0.12f, 0.4f),
                (b - 0.14f, 0.34f, b, y),
                (a + 0.22f, y + 0.02f, a + 0.15f, 0.42f),
                (a + 0.22f, y + 0.02f, b - 0.12f, 0.4f),
                (a, y, a + 0.22f, y + 0.02f),
            }
        )
        {
            Line(x1, y1, x2, y2, 0.02f, paint);
        }

        Shadowed(() => Box(b - 0.12f, 0.3f, 0.2f, 0.13f, Hex(0xA97C50)));
        for (var i = 0; i < 10; i++)
        {
            Circle(
                b - 0.1f + (0.018f * i),
                0.29f + Between(-0.03f, 0.01f),
                0.026f,
                Pick(0xE2577A, 0xF3B63C, 0xF7F0E2, 0x5E8A40)
            );
        }

        Oval(a + 0.14f, 0.38f, 0.07f, 0.022f, 0, Hex(0x3A2A1E));
    }

    private void WashingLine()
    {
        Sky();
        Ridge(0.74f, 0.04f, Hex(0x7C9A52));
        Gradient(0.82f, 1, Hex(0x8AA653), Hex(0x5C7A38));
        Line(0, 0.26f, _width, 0.3f, 0.005f, Hex(0x4B4038));
        var x = 0.05f;
        while (x < _width - 0.1f)
        {
            var (w, h) = (Between(0.1f, 0.22f), Between(0.16f, 0.42f));
            var (y, at, sway) = (0.26f + (0.04f * x / _width), x, Between(-0.05f, 0.05f));
            Shadowed(() =>
                Poly(
                    Pick(0xF4F0E6, 0xC8452F, 0x6FA3CF, 0xE0B23C, 0xD9CBB2, 0x8A5A7A),
                    (at, y),
                    (at + w, y),
                    (at + w + sway, y + h),
                    (at + sway, y + h)
                )
            );
            x += w + 0.03f;
        }
    }

    private void Heron()
    {
        Gradient(0, 1, Hex(0x9FB0A8), Hex(0x4F6B6A));
        Water(0.4f, 1f);
        for (var i = 0; i < 46; i++)
        {
            var x = At(0, _width);
            Line(x, 0.5f, x + Between(-0.05f, 0.05f), Between(0.1f, 0.38f), 0.007f, Pick(0x6F7F4A, 0x8A8A55, 0x55663A));
        }

        var (cx, body) = (_width * Between(0.4f, 0.6f), Hex(0x8A97A2));
        Line(cx, 0.62f, cx - 0.01f, 0.88f, 0.011f, Hex(0x5B5140));
        Line(cx + 0.05f, 0.62f, cx + 0.05f, 0.88f, 0.011f, Hex(0x5B5140));
        Shadowed(() => Oval(cx, 0.56f, 0.16f, 0.08f, -0.3f, body));
        Line(cx + 0.12f, 0.5f, cx + 0.1f, 0.36f, 0.032f, Hex(0xE6E4DC));
        Line(cx + 0.1f, 0.36f, cx + 0.15f, 0.26f, 0.03f, Hex(0xE6E4DC));
        Circle(cx + 0.16f, 0.245f, 0.028f, Hex(0xEFEDE4));
        Line(cx + 0.18f, 0.245f, cx + 0.3f, 0.26f, 0.013f, Hex(0xD9A03A));
        Line(cx + 0.15f, 0.235f, cx + 0.06f, 0.25f, 0.008f, Hex(0x20222A));
    }

    private void Ducks()
    {
        Water(-0.02f, 1.02f);
        for (var i = 0; i < 7; i++)
        {
            var (x, y, s) = (At(0.1f, _width - 0.1f), Between(0.2f, 0.85f), Between(0.07f, 0.11f));
            var drake = i % 2 == 0;
            Blurred(0.012f, () => Oval(x, y + (s * 0.6f), s, s * 0.3f, 0, new SKColor(20, 30, 40, 90)));
            Oval(x, y, s, s * 0.5f, 0, drake ? Hex(0xB9B4A8) : Hex(0x8A6A48));
            Oval(x - (s * 0.3f), y - (s * 0.05f), s * 0.55f, s * 0.3f, 0, drake ? Hex(0x8A867C) : Hex(0x6E5236));
            Circle(x + (s * 0.85f), y - (s * 0.5f), s * 0.3f, drake ? Hex(0x2F5D45) : Hex(0x7A5C3E));
            Oval(x + (s * 1.2f), y - (s * 0.45f), s * 0.2f, s * 0.09f, 0, Hex(0xE0A03A));
        }
    }

    private void Sheep()
    {
        Sky();
        Ridge(0.36f, 0.06f, Hex(0x8FAA6A));
        Gradient(0.5f, 1, Hex(0x86A655), Hex(0x55763A));
        Poly(Hex(0xC9BC9A), (_width * 0.46f, 0.48f), (_width * 0.52f, 0.48f), (_width * 0.9f, 1), (_width * 0.3f, 1));
        for (var i = 0; i < 9; i++)
        {
            var y = 0.54f + (0.05f * i);
            var (x, s) = (At(0.05f, _width - 0.05f), 0.03f + (0.008f * i));
            Blurred(0.008f, () => Oval(x, y + (s * 0.7f), s * 1.1f, s * 0.25f, 0, new SKColor(0, 0, 0, 80)));
            for (var k = 0; k < 9; k++)
            {
                Circle(
                    x + Between(-s, s) * 0.8f,
                    y + (Between(-s, s) * 0.45f),
                    s * 0.45f,
                    Pick(0xF2EDE0, 0xE3DCCB, 0xFAF6EC)
                );
            }

            Oval(x + (s * 1.15f), y - (s * 0.2f), s * 0.32f, s * 0.42f, 0.4f, Hex(0x2B2622));
        }
    }

    private void LockGates()
    {
        Sky();
        Ridge(0.34f, 0.05f, Hex(0x6F8F5A));
        Gradient(0.4f, 1, Hex(0x8A8072), Hex(0x5B5348));
        Gradient(0.62f, 1, Hex(0x4F6B66), Hex(0x24383A));
        foreach (var side in new[] { -1, 1 })
        {
            var x = (_width / 2) + (side * 0.02f);
            Shadowed(() =>
                Poly(Hex(0x2B2622), (x, 0.42f), (x + (side * 0.36f), 0.36f), (x + (side * 0.36f), 0.8f), (x, 0.86f))
            );
            for (var i = 1; i < 5; i++)
            {
                Line(x, 0.42f + (0.09f * i), x + (side * 0.36f), 0.36f + (0.09f * i), 0.006f, Hex(0x6B6258));
            }

            Line(x - (side * 0.04f), 0.4f, x + (side * 0.62f), 0.3f, 0.05f, Hex(0x2B2622));
            Line(x + (side * 0.5f), 0.318f, x + (side * 0.62f), 0.3f, 0.05f, Hex(0xF4F0E6));
        }

        for (var i = 0; i < 30; i++)
        {
            Blurred(
                0.006f,
                () =>
                    Line(
                        (_width / 2) + Between(-0.02f, 0.02f),
                        Between(0.6f, 0.8f),
                        (_width / 2) + Between(-0.06f, 0.06f),
                        Between(0.8f, 0.96f),
                        0.006f,
                        new SKColor(235, 245, 245, 120)
                    )
            );
        }

        Figure(_width * 0.2f, 0.42f, 0.15f);
    }

    private void Rope()
    {
        Wood(Hex(0x9A7A55), Hex(0x6E5538));
        var (cx, cy) = (_width * 0.5f, 0.55f);
        for (var turn = 11; turn > 0; turn--)
        {
            var r = 0.034f * turn;
            Ring(cx + (0.004f * (turn % 3)), cy, r, 0.032f, Mix(Hex(0xE6D6B2), Hex(0x8A7350), (turn % 2) * 0.5f));
        }

        Shadowed(() => Line(cx + 0.36f, cy, _width * 1.02f, 0.2f, 0.034f, Hex(0xDCCBA4)));
        Shadowed(() => Box(_width * 0.05f, 0.06f, 0.2f, 0.13f, Hex(0x34343F)));
        LightPatch();
    }

    private void Square()
    {
        Sky();
        Box(_width * 0.44f, 0.08f, 0.16f, 0.55f, Hex(0xB4A88F));
        Poly(
            Hex(0x5A5F6A),
            (_width * 0.42f, 0.09f),
            ((_width * 0.44f) + 0.08f, -0.12f),
            ((_width * 0.44f) + 0.18f, 0.09f)
        );
        Circle((_width * 0.44f) + 0.08f, 0.2f, 0.045f, Hex(0xF4EAD6));
        var x = -0.02f;
        while (x < _width)
        {
            var w = Between(0.12f, 0.2f);
            var h = Between(0.2f, 0.32f);
            if (x + w < _width * 0.42f || x > (_width * 0.44f) + 0.16f)
            {
                Box(x, 0.63f - h, w, h, Pick(0xD8A77C, 0xC9C0A8, 0xE3CFA0, 0xC98B7A));
                Poly(Hex(0x7A4A3A), (x - 0.01f, 0.63f - h), (x + (w / 2), 0.57f - h), (x + w + 0.01f, 0.63f - h));
            }

            x += w;
        }

        Gradient(0.63f, 1, Hex(0xC4B8A0), Hex(0x8A7F6C));
        for (var i = 0; i < 5; i++)
        {
            var (sx, sy) = (_width * (0.06f + (0.19f * i)), 0.7f + (0.03f * (i % 2)));
            Poly(
                i % 2 == 0 ? Hex(0xC8452F) : Hex(0xF4EAD6),
                (sx, sy),
                (sx + 0.13f, sy),
                (sx + 0.15f, sy + 0.05f),
                (sx - 0.02f, sy + 0.05f)
            );
            Box(sx, sy + 0.05f, 0.13f, 0.06f, Hex(0x6E5A40));
        }

        for (var i = 0; i < 14; i++)
        {
            Figure(At(0, _width), Between(0.82f, 0.97f), Between(0.09f, 0.13f));
        }
    }

    private void Fog()
    {
        Gradient(0, 1, Hex(0xCBD2D2), Hex(0x9FAAAA));
        for (var layer = 0; layer < 4; layer++)
        {
            Ridge(0.4f + (0.1f * layer), 0.05f, Mix(Hex(0xBEC8C8), Hex(0x66777A), layer / 3f).WithAlpha(200));
            Blurred(
                0.08f,
                () => Box(-0.1f, 0.44f + (0.1f * layer), _width + 0.2f, 0.08f, new SKColor(220, 226, 226, 150))
            );
        }

        Water(0.78f, 1f);
        Figure(_width * 0.7f, 0.8f, 0.13f);
        Blurred(0.05f, () => Box(-0.1f, 0.66f, _width + 0.2f, 0.16f, new SKColor(215, 222, 222, 120)));
    }

    private void WetNight()
    {
        Gradient(0, 0.6f, Hex(0x161B33), Hex(0x2B2F4A));
        Gradient(0.6f, 1, Hex(0x23242F), Hex(0x101118));
        for (var i = 0; i < 26; i++)
        {
            var (x, y, r, colour) = (
                At(0, _width),
                Between(0.15f, 0.58f),
                Between(0.02f, 0.06f),
                Pick(0xFFC45A, 0xFF7A4A, 0x7AB8FF, 0xFFE9B0, 0xE85A5A)
            );
            Blurred(0.008f, () => Circle(x, y, r, colour.WithAlpha(150)));
            Blurred(0.02f, () => Oval(x, 1.2f - y, r * 0.5f, r * 2.6f, 0, colour.WithAlpha(90)));
        }

        Figure(_width * Between(0.3f, 0.7f), 0.9f, 0.3f);
        RainFalls(90, 70);
    }

    private void Mushrooms()
    {
        Gradient(0, 1, Hex(0x4A4A2E), Hex(0x2B2418));
        Blurred(
            0.03f,
            () =>
            {
                for (var i = 0; i < 26; i++)
                {
                    Circle(
                        At(0, _width),
                        Chance() * 0.5f,
                        Between(0.03f, 0.08f),
                        Pick(0x8A8A4A, 0xC9B86A, 0x55663A).WithAlpha(130)
                    );
                }
            }
        );
        for (var i = 0; i < 80; i++)
        {
            Oval(
                At(0, _width),
                Between(0.68f, 1),
                0.05f,
                0.018f,
                Chance() * 3,
                Pick(0x8A5A2E, 0xB4742E, 0x6E4A2A, 0x9A3F2A)
            );
        }

        for (var i = 0; i < 5; i++)
        {
            var (x, y, s) = (At(0.1f, _width - 0.1f), Between(0.62f, 0.86f), Between(0.07f, 0.16f));
            Poly(
                Hex(0xEADFC8),
                (x - (s * 0.2f), y - (s * 0.6f)),
                (x + (s * 0.2f), y - (s * 0.6f)),
                (x + (s * 0.26f), y + (s * 0.5f)),
                (x - (s * 0.26f), y + (s * 0.5f))
            );
            Shadowed(() => Oval(x, y - (s * 0.72f), s, s * 0.42f, 0, Pick(0xA9562E, 0xC98B4B, 0x8A4A3A)));
            Blurred(
                0.01f,
                () =>
                    Oval(x - (s * 0.3f), y - (s * 0.85f), s * 0.34f, s * 0.12f, -0.2f, new SKColor(255, 240, 210, 110))
            );
        }
    }

    private void AppleTree()
    {
        Sky();
        Gradient(0.72f, 1, Hex(0x86A655), Hex(0x55763A));
        Tree(_width * 0.42f, 0.86f, 0.8f, Hex(0x4A7A3A));
        for (var i = 0; i < 34; i++)
        {
            Circle(
                (_width * 0.42f) + Between(-0.36f, 0.36f),
                Between(0.06f, 0.52f),
                0.02f,
                Pick(0xC8352F, 0xE0762A, 0xD9C23A)
            );
        }

        foreach (var side in new[] { 0f, 0.09f })
        {
            Line(_width * 0.62f + side, 0.95f, (_width * 0.56f) + side, 0.35f, 0.014f, Hex(0xB08A5E));
        }

        for (var i = 0; i < 8; i++)
        {
            var t = i / 8f;
            Line(
                (_width * 0.62f) - (0.06f * _width * t),
                0.93f - (0.56f * t),
                (_width * 0.62f) + 0.09f - (0.06f * _width * t),
                0.93f - (0.56f * t),
                0.011f,
                Hex(0xB08A5E)
            );
        }

        Figure((_width * 0.6f) + 0.05f, 0.64f, 0.22f);
        Shadowed(() => Box(_width * 0.2f, 0.86f, 0.16f, 0.09f, Hex(0xA97C50)));
        for (var i = 0; i < 9; i++)
        {
            Circle(
                (_width * 0.2f) + 0.02f + (0.015f * i),
                0.86f + Between(-0.02f, 0.01f),
                0.02f,
                Pick(0xC8352F, 0xE0762A)
            );
        }
    }

    private void Ring(float x, float y, float r, float width, SKColor colour)
    {
        using var paint = new SKPaint
        {
            Color = _shadow ?? colour,
            MaskFilter = _soft,
            StrokeWidth = width,
            IsAntialias = true,
            Style = SKPaintStyle.Stroke,
        };
        _canvas.DrawCircle(x, y, r, paint);
    }
}
