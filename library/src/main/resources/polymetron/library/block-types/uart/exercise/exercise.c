/*
 * A second line, looped back inside: characters come round in order and in their time, FIFOs fill and overrun, and each cause
 * of the interrupt is told in its order (PC16550D data sheet, sections 8.3 to 8.6, from memory).
 */
static uint32_t line_word(unsigned index)
{
    return *uart_register(LINE_BASE, 4u * index);
}

static void line_set(unsigned index, uint32_t value)
{
    *uart_register(LINE_BASE, 4u * index) = value;
}

static uint32_t cause(void)
{
    return line_word(2u) & 0xFu;
}

static void looped(void)
{
    exercise_expect("no FIFOs", line_word(2u), 0x01u);
    line_set(4u, 0x10u);
    uint32_t begin = exercise_cycles();
    line_set(0u, 0x5Au);
    while ((line_word(5u) & 1u) == 0u) {
    }
    uint32_t took = exercise_cycles() - begin;
    exercise_hex(took);
    exercise_expect("comes round", line_word(0u), 0x5Au);
    exercise_expect("is empty", line_word(0u), 0u);
    while ((line_word(5u) & 0x40u) == 0u) {
    }
    exercise_hex(exercise_cycles() - begin);
}

static void fifos(void)
{
    line_set(2u, 0x07u);
    exercise_expect("FIFOs", line_word(2u), 0xC1u);
    for (uint32_t at = 0; at < 17u; at++) {
        line_set(0u, at + 1u);
    }
    while ((line_word(5u) & 0x40u) == 0u) {
    }
    exercise_expect("none lost", line_word(5u) & 0x1Fu, 1u);
    for (uint32_t at = 0; at < 16u; at++) {
        exercise_expect("in order", line_word(0u), at + 1u);
    }
    /* The seventeenth went out while there was room again: the first had left for the line. */
    exercise_expect("one more or none", line_word(0u) <= 17u, 1u);
    line_set(2u, 0x07u);
    for (uint32_t at = 0; at < 20u; at++) {
        while ((line_word(5u) & 0x20u) == 0u) {
        }
        exercise_expect("not before the end", line_word(5u) & 2u, 0u);
        line_set(0u, at);
    }
    /* Reading the status clears it. */
    uint32_t status;
    uint32_t seen = 0u;
    do {
        status = line_word(5u);
        seen |= status;
    } while ((status & 0x40u) == 0u);
    exercise_expect("overrun", seen & 2u, 2u);
    exercise_expect("told once", line_word(5u) & 2u, 0u);
    line_set(2u, 0x07u);
    exercise_expect("emptied", line_word(5u) & 1u, 0u);
}

static void causes(void)
{
    exercise_expect("none", cause(), 1u);
    line_set(1u, 2u);
    exercise_expect("transmitter", cause(), 2u);
    exercise_expect("read clears it", cause(), 1u);
    line_set(2u, 0x47u);
    line_set(1u, 1u);
    for (uint32_t at = 0; at < 4u; at++) {
        exercise_expect("not yet", cause(), 1u);
        line_set(0u, at);
        while ((line_word(5u) & 0x40u) == 0u) {
        }
    }
    exercise_expect("four have come", cause(), 4u);
    exercise_wait(LINE_IRQ_PLIC_SOURCE);
    exercise_expect("first", line_word(0u), 0u);
    exercise_done(LINE_IRQ_PLIC_SOURCE);
    exercise_expect("below the level", cause(), 1u);
    uint32_t begin = exercise_cycles();
    while (cause() != 0xCu) {
    }
    exercise_hex(exercise_cycles() - begin);
    exercise_expect("the rest", line_word(0u), 1u);
    exercise_expect("time begins again", cause(), 1u);
    line_set(1u, 0u);
}

static void exercise(void)
{
    looped();
    fifos();
    causes();
    uart_set_divisor(LINE_BASE, 3u);
    line_set(4u, 0x10u);
    uint32_t begin = exercise_cycles();
    line_set(0u, 1u);
    while ((line_word(5u) & 1u) == 0u) {
    }
    exercise_hex(exercise_cycles() - begin);
}
