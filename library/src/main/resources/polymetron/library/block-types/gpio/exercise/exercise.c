/*
 * Lines as software says: what is driven is read back, what is not is what is outside (nothing here); an edge is one of the line,
 * whoever drives it.
 */
#include "drivers/gpio.h"

/* One line rises and falls while the others stay, with one of its edges looked for, and with all but it. */
static void one_line(uint32_t line, uint32_t others)
{
    gpio_notice_edges(PORT_BASE, 0u, 0u);
    gpio_write(PORT_BASE, others);
    gpio_take_edges(PORT_BASE);
    gpio_notice_edges(PORT_BASE, line, 0u);
    gpio_write(PORT_BASE, others | line);
    exercise_expect("rises", gpio_take_edges(PORT_BASE), line);
    exercise_expect("high", gpio_read(PORT_BASE), others | line);
    gpio_write(PORT_BASE, others);
    exercise_expect("falls unnoticed", gpio_take_edges(PORT_BASE), 0u);
    gpio_notice_edges(PORT_BASE, 0xFFu & ~line, line);
    gpio_write(PORT_BASE, others | line);
    exercise_expect("rises unnoticed", gpio_take_edges(PORT_BASE), 0u);
    gpio_write(PORT_BASE, others);
    exercise_expect("falls", gpio_take_edges(PORT_BASE), line);
    gpio_notice_edges(PORT_BASE, 0xFFu, 0xFFu & ~line);
    gpio_write(PORT_BASE, others | line);
    exercise_expect("rises among all", gpio_take_edges(PORT_BASE), line);
    gpio_write(PORT_BASE, others);
    exercise_expect("falls among all", gpio_take_edges(PORT_BASE), 0u);
}

static void exercise(void)
{
    exercise_expect("nothing outside", gpio_read(PORT_BASE), 0u);
    gpio_notice_edges(PORT_BASE, 0xFFu, 0xFFu);
    for (uint32_t lines = 1u; lines < 0x100u; lines <<= 1) {
        gpio_write(PORT_BASE, 0xFFu);
        gpio_drive(PORT_BASE, lines);
        exercise_expect("driven high", gpio_read(PORT_BASE), lines);
        gpio_write(PORT_BASE, ~lines & 0xFFu);
        exercise_expect("driven low", gpio_read(PORT_BASE), 0u);
        gpio_drive(PORT_BASE, 0u);
        exercise_expect("released", gpio_read(PORT_BASE), 0u);
    }
    exercise_expect("own edges", gpio_take_edges(PORT_BASE), 0xFFu);
    exercise_expect("told once", gpio_take_edges(PORT_BASE), 0u);
    gpio_drive(PORT_BASE, 0xFFu);
    for (uint32_t line = 1u; line < 0x100u; line <<= 1) {
        one_line(line, 0u);
        one_line(line, 0xFFu & ~line);
        one_line(line, 0x55u & ~line);
    }
    gpio_notice_edges(PORT_BASE, 0u, 0u);
    gpio_write(PORT_BASE, 1u);
    gpio_drive(PORT_BASE, 1u);
    gpio_drive(PORT_BASE, 0u);
    exercise_expect("not enabled", gpio_take_edges(PORT_BASE), 0u);
}
