/*
 * Packets from memory through every element of a stream, into another clock and back, and to memory again: of odd lengths, by
 * interrupt, in parts, from descriptors. Then what goes wrong: buffers where no memory is, and a transfer that is given up.
 */
#include "drivers/dma.h"
#include "drivers/fir_filter.h"

static uint8_t from[96] __attribute__((aligned(16)));
static uint8_t to[96] __attribute__((aligned(16)));
static uint32_t sends[3][4] __attribute__((aligned(16)));
static uint32_t receives[3][4] __attribute__((aligned(16)));

static void clear(void)
{
    for (unsigned at = 0; at < sizeof to; at++) {
        to[at] = 0xEEu;
    }
}

/* How many of the first bytes are those that were sent, from a place on; those behind must be as they were. */
static void arrived(const char *what, unsigned place, unsigned length)
{
    unsigned good = 0;
    while (good < length && to[good] == from[place + good]) {
        good++;
    }
    exercise_expect(what, good, length);
    exercise_expect("behind it", to[length], 0xEEu);
}

static void wait_both(void)
{
    while (!dma_is_sent(MOVER_BASE) || !dma_is_received(MOVER_BASE)) {
    }
}

static void exercise(void)
{
    *fir_filter_register(FIR_BASE, 0u) = 0u;
    for (unsigned at = 0; at < sizeof from; at++) {
        from[at] = (uint8_t)(at * 7u + 3u);
    }
    exercise_expect("idle", *dma_register(MOVER_BASE, 4u), 4u);
    for (unsigned length = 1; length < 12u; length += 5u) {
        clear();
        dma_receive(MOVER_BASE, (uintptr_t)to, 60u, false);
        dma_send(MOVER_BASE, (uintptr_t)from, length, false);
        wait_both();
        exercise_expect("received", dma_received_bytes(MOVER_BASE), length);
        exercise_expect("left to send", *dma_register(MOVER_BASE, 16u), 0u);
        arrived("bytes", 0u, length);
    }

    clear();
    (void)dma_take_received(MOVER_BASE);
    dma_receive(MOVER_BASE, (uintptr_t)to, 95u, true);
    dma_send(MOVER_BASE, (uintptr_t)from, 90u, false);
    exercise_wait(MOVER_RECEIVED_PLIC_SOURCE);
    exercise_expect("received", dma_take_received(MOVER_BASE), 1u);
    exercise_expect("taken", dma_take_received(MOVER_BASE), 0u);
    exercise_done(MOVER_RECEIVED_PLIC_SOURCE);
    arrived("long packet", 0u, 90u);

    clear();
    dma_receive(MOVER_BASE, (uintptr_t)to, 16u, false);
    dma_send(MOVER_BASE, (uintptr_t)from, 37u, false);
    wait_both();
    exercise_expect("first part", dma_received_bytes(MOVER_BASE), 16u);
    arrived("first part", 0u, 16u);
    clear();
    dma_receive(MOVER_BASE, (uintptr_t)to, 100u, false);
    while (!dma_is_received(MOVER_BASE)) {
    }
    exercise_expect("rest", dma_received_bytes(MOVER_BASE), 21u);
    arrived("rest", 16u, 21u);

    clear();
    for (unsigned at = 0; at < 2u; at++) {
        sends[at][0] = (uint32_t)(uintptr_t)sends[at + 1u];
        sends[at][1] = (uint32_t)(uintptr_t)(from + 32u * at);
        sends[at][2] = 10u + 8u * at;
        sends[at][3] = 0u;
        receives[at][0] = (uint32_t)(uintptr_t)receives[at + 1u];
        receives[at][1] = (uint32_t)(uintptr_t)(to + 64u * at);
        receives[at][2] = 30u;
        receives[at][3] = 0u;
    }
    dma_order();
    *dma_register(MOVER_BASE, 68u) = 3u;
    *dma_register(MOVER_BASE, 88u) = (uint32_t)(uintptr_t)receives[0];
    *dma_register(MOVER_BASE, 96u) = (uint32_t)(uintptr_t)receives[2];
    *dma_register(MOVER_BASE, 64u) = 3u;
    *dma_register(MOVER_BASE, 24u) = (uint32_t)(uintptr_t)sends[0];
    *dma_register(MOVER_BASE, 32u) = (uint32_t)(uintptr_t)sends[2];
    *dma_register(MOVER_BASE, 0u) = 3u;
    volatile uint32_t *told = &receives[1][3];
    while (*told == 0u) {
    }
    dma_order();
    exercise_expect("descriptor 0", receives[0][3], 0x8000000Au);
    exercise_expect("descriptor 1", receives[1][3], 0x80000012u);
    exercise_expect("sent 0", sends[0][3], 0x8000000Au);
    exercise_expect("sent 1", sends[1][3], 0x80000012u);
    arrived("first packet", 0u, 10u);
    for (unsigned at = 0; at < 18u; at++) {
        exercise_expect("second packet", to[64u + at], from[32u + at]);
    }
    /* One more, behind the end of the ring as it was. */
    sends[2][0] = (uint32_t)(uintptr_t)sends[0];
    sends[2][1] = (uint32_t)(uintptr_t)from;
    sends[2][2] = 4u;
    sends[2][3] = 0u;
    receives[2][0] = (uint32_t)(uintptr_t)receives[0];
    receives[2][1] = (uint32_t)(uintptr_t)to;
    receives[2][2] = 4u;
    receives[2][3] = 0u;
    dma_order();
    *dma_register(MOVER_BASE, 96u) = (uint32_t)(uintptr_t)receives[0];
    *dma_register(MOVER_BASE, 32u) = (uint32_t)(uintptr_t)sends[0];
    told = &receives[2][3];
    while (*told == 0u) {
    }
    exercise_expect("round the ring", *told, 0x80000004u);
    *dma_register(MOVER_BASE, 0u) = 8u;
    *dma_register(MOVER_BASE, 64u) = 8u;

    dma_send(MOVER_BASE, 0x70000000u, 8u, false);
    while (!dma_is_sent(MOVER_BASE)) {
    }
    exercise_expect("sends from nowhere", dma_send_has_failed(MOVER_BASE), 1u);
    dma_receive(MOVER_BASE, 0x70000000u, 8u, false);
    dma_send(MOVER_BASE, (uintptr_t)from, 4u, false);
    wait_both();
    exercise_expect("sends", dma_send_has_failed(MOVER_BASE), 0u);
    exercise_expect("receives to nowhere", dma_receive_has_failed(MOVER_BASE), 1u);
    exercise_expect("nothing moved", dma_received_bytes(MOVER_BASE), 0u);

    dma_receive(MOVER_BASE, (uintptr_t)to, 8u, false);
    exercise_expect("waits", *dma_register(MOVER_BASE, 68u), 0u);
    *dma_register(MOVER_BASE, 64u) = 8u;
    exercise_expect("given up", *dma_register(MOVER_BASE, 68u), 4u);
    clear();
    dma_receive(MOVER_BASE, (uintptr_t)to, 8u, false);
    dma_send(MOVER_BASE, (uintptr_t)from, 8u, false);
    wait_both();
    arrived("works again", 0u, 8u);
}
