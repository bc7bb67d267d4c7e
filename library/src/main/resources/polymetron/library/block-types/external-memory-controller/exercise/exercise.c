/*
 * Every address line, bytes and halfwords, rows that follow each other in one bank and in all, and a block that is written by the
 * processor, moved by the DMA and read back, while the chips are refreshed.
 */
#include "drivers/dma.h"

static volatile uint32_t *const words = (volatile uint32_t *)CHIPS_BASE;

static uint32_t pattern(uint32_t at)
{
    return at * 0x9E3779B9u ^ at >> 7;
}

static void exercise(void)
{
    volatile uint8_t *const bytes = (volatile uint8_t *)CHIPS_BASE;
    volatile uint16_t *const halves = (volatile uint16_t *)CHIPS_BASE;
    /* One word at each address line: none is the same place as another. */
    words[0] = 0xC0FFEE00u;
    for (uint32_t bit = 2; bit < 26u; bit++) {
        words[1u << (bit - 2u)] = pattern(bit);
    }
    exercise_expect("first", words[0], 0xC0FFEE00u);
    for (uint32_t bit = 2; bit < 26u; bit++) {
        exercise_expect("address line", words[1u << (bit - 2u)], pattern(bit));
    }
    /* Parts of a word leave the rest alone. */
    words[8] = 0x44332211u;
    bytes[33] = 0xAAu;
    exercise_expect("byte 1", words[8], 0x4433AA11u);
    bytes[35] = 0xBBu;
    exercise_expect("byte 3", words[8], 0xBB33AA11u);
    halves[17] = 0xCCDDu;
    exercise_expect("half", words[8], 0xCCDDAA11u);
    exercise_expect("one byte", bytes[34], 0xDDu);
    exercise_expect("one half", halves[16], 0xAA11u);
    /* Rows of one bank are 8 KiB apart here, and banks 2 KiB. */
    for (uint32_t row = 0; row < 8u; row++) {
        for (uint32_t bank = 0; bank < 4u; bank++) {
            words[row * 2048u + bank * 512u + row] = pattern(row * 4u + bank);
        }
    }
    for (uint32_t bank = 0; bank < 4u; bank++) {
        for (uint32_t row = 0; row < 8u; row++) {
            exercise_expect("row", words[row * 2048u + bank * 512u + row], pattern(row * 4u + bank));
        }
    }
    uint32_t changes = exercise_cycles();
    for (uint32_t at = 0; at < 8u; at++) {
        (void)words[0];
        (void)words[2048];
    }
    changes = exercise_cycles() - changes;
    uint32_t same = exercise_cycles();
    for (uint32_t at = 0; at < 8u; at++) {
        (void)words[0];
        (void)words[1];
    }
    same = exercise_cycles() - same;
    /* As predicted, give or take a refresh; less where the row is open, which the bench does not count. */
    exercise_between("row changes", changes, 495u, 530u);
    exercise_between("one row", same, 400u, 500u);
    for (uint32_t at = 0; at < 64u; at++) {
        words[0x1000u + at] = pattern(at);
    }
    uint32_t sum = 0;
    for (uint32_t at = 0; at < 64u; at++) {
        sum += words[0x1000u + at] * (at + 1u);
    }
    exercise_hex(sum);
    /* From there through the DMA to another row. */
    if (!dma_receive(MOVER_BASE, CHIPS_BASE + 0x3FF00u, 256u, false)
        || !dma_send(MOVER_BASE, CHIPS_BASE + 0x4000u, 256u, false)) {
        exercise_say("no transfer\n");
    }
    while (!dma_is_received(MOVER_BASE)) {
        sum ^= words[0x1000u];
    }
    for (uint32_t at = 0; at < 64u; at++) {
        exercise_expect("moved", words[0xFFC0u + at], pattern(at));
    }
}
