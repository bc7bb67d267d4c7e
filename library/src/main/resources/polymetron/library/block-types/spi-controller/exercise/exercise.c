/*
 * Reads a converter in mode 1, as it is meant to be read; then what the port does with itself looped back: every mode and both
 * orders, a full buffer, a word that has no room, and the interrupt.
 */
#include "drivers/spi_controller.h"

static void samples(unsigned rows)
{
    uint32_t all = 0;
    for (unsigned row = 0; row < rows; row++) {
        spi_select(SPI_BASE, 1u);
        for (unsigned channel = 0; channel < 3u; channel++) {
            uint32_t sample = spi_exchange(SPI_BASE, 0u);
            all = (all << 5 | all >> 27) ^ sample;
            if (row < 2u) {
                exercise_hex(sample);
            }
        }
        spi_select(SPI_BASE, 0u);
    }
    exercise_hex(all);
}

static void looped(void)
{
    for (unsigned kind = 0; kind < 8u; kind++) {
        *spi_register(SPI_BASE, 0u) = 1u | kind << 1 | 16u;
        exercise_expect("looped", spi_exchange(SPI_BASE, 0xA50F31u + kind), 0xA50F31u + kind);
    }
}

static void buffered(void)
{
    /* What is sent while the port is off waits. */
    *spi_register(SPI_BASE, 0u) = 16u;
    (void)spi_take(SPI_BASE, 7u);
    for (uint32_t word = 0; word < SPI_FIFO_WORDS; word++) {
        exercise_expect("room", *spi_register(SPI_BASE, 4u) & 5u, 4u);
        *spi_register(SPI_BASE, 16u) = 0x1000u + word;
    }
    exercise_expect("full", *spi_register(SPI_BASE, 4u), 0u);
    exercise_expect("not lost", spi_take(SPI_BASE, 7u), 0u);
    *spi_register(SPI_BASE, 16u) = 0xFFFFFFu;
    exercise_expect("lost", spi_take(SPI_BASE, 7u), spi_lost);
    *spi_register(SPI_BASE, 0u) = 17u;
    exercise_expect("busy", *spi_register(SPI_BASE, 4u) & 1u, 1u);
    while ((spi_take(SPI_BASE, spi_empty)) == 0u) {
    }
    for (uint32_t word = 0; word < SPI_FIFO_WORDS; word++) {
        exercise_expect("arrived", *spi_register(SPI_BASE, 4u), 6u);
        exercise_expect("in order", *spi_register(SPI_BASE, 20u), 0x1000u + word);
    }
    exercise_expect("taken", *spi_register(SPI_BASE, 4u), 4u);
    exercise_expect("none", *spi_register(SPI_BASE, 20u), 0u);
    exercise_expect("all arrived", spi_take(SPI_BASE, 7u), spi_arrived);
}

static void overrun(void)
{
    for (uint32_t word = 0; word <= SPI_FIFO_WORDS; word++) {
        while ((*spi_register(SPI_BASE, 4u) & 4u) == 0u) {
        }
        *spi_register(SPI_BASE, 16u) = word;
    }
    while ((spi_take(SPI_BASE, spi_empty)) == 0u) {
    }
    exercise_expect("overrun", spi_take(SPI_BASE, 7u), spi_arrived | spi_lost);
}

static void interrupt(void)
{
    spi_begin(SPI_BASE, 0u, 64u);
    exercise_expect("quiet", exercise_is_pending(SPI_IRQ_PLIC_SOURCE), 0u);
    spi_interrupt(SPI_BASE, spi_empty);
    *spi_register(SPI_BASE, 16u) = 1u;
    *spi_register(SPI_BASE, 16u) = 2u;
    exercise_wait(SPI_IRQ_PLIC_SOURCE);
    exercise_expect("both sent", *spi_register(SPI_BASE, 4u), 6u);
    exercise_expect("event", spi_take(SPI_BASE, 7u), spi_arrived | spi_empty);
    exercise_done(SPI_IRQ_PLIC_SOURCE);
    exercise_expect("quiet again", exercise_is_pending(SPI_IRQ_PLIC_SOURCE), 0u);
    spi_interrupt(SPI_BASE, 0u);
}

/* What a converter is sent comes back behind its samples. */
static void sent(void)
{
    spi_select(SPI_BASE, 1u);
    for (uint32_t word = 0; word < 3u; word++) {
        (void)spi_exchange(SPI_BASE, 0xC3A501u << word);
    }
    for (uint32_t word = 0; word < 3u; word++) {
        exercise_expect("back", spi_exchange(SPI_BASE, 0u), 0xC3A501u << word & 0xFFFFFFu);
    }
    spi_select(SPI_BASE, 0u);
    spi_select(SPI_BASE, 2u);
    exercise_expect("nothing there", spi_exchange(SPI_BASE, 0xFFFFFFu), 0u);
    spi_select(SPI_BASE, 0u);
}

static void divided(void)
{
    spi_begin(SPI_BASE, 0u, 2u);
    for (uint32_t divider = 0u; divider < 300u; divider += divider < 16u ? 2u : 54u) {
        *spi_register(SPI_BASE, 8u) = divider;
        uint32_t begin = exercise_cycles();
        (void)spi_exchange(SPI_BASE, 0u);
        exercise_hex(exercise_cycles() - begin);
    }
}

static void exercise(void)
{
    spi_begin(SPI_BASE, 1u, 8u);
    samples(12u);
    sent();
    looped();
    buffered();
    overrun();
    interrupt();
    divided();
}
