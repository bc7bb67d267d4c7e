/*
 * Windows to logic outside on each protocol, of different widths, one of them in another clock: words, halfwords and bytes arrive
 * where they belong, and what is outside one window is not in another.
 */
static void one(const char *name, uintptr_t base)
{
    volatile uint32_t *const words = (volatile uint32_t *)base;
    volatile uint16_t *const halves = (volatile uint16_t *)base;
    volatile uint8_t *const bytes = (volatile uint8_t *)base;
    exercise_say(name);
    exercise_say(" ");
    for (uint32_t at = 0; at < 12u; at++) {
        words[at * 5u] = (uint32_t)base + at * 0x01010101u;
    }
    words[1] = 0x87654321u;
    bytes[5] = 0xFFu;
    halves[3] = 0x1234u;
    exercise_expect("parts", words[1], 0x1234FF21u);
    exercise_expect("byte", bytes[7], 0x12u);
    exercise_expect("half", halves[2], 0xFF21u);
    for (uint32_t at = 0; at < 12u; at++) {
        exercise_expect("word", words[at * 5u], (uint32_t)base + at * 0x01010101u);
    }
    exercise_hex(words[0]);
}

static void exercise(void)
{
    one("AXI4", ON_AXI4_BASE);
    one("AXI4, 64 bit", ON_WIDE_BASE);
    one("AXI4-Lite", ON_LITE_BASE);
    one("AHB-Lite", ON_AHB_BASE);
    one("Wishbone", ON_WISHBONE_BASE);
    one("APB", ON_APB_BASE);
    exercise_expect("apart", *(volatile uint32_t *)ON_AXI4_BASE, ON_AXI4_BASE);
}
