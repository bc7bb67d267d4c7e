/* Work of the kinds that firmware does, many times over; says "done" on a 16550 at 0x10000000. */
#include <stdint.h>

#define CONSOLE (*(volatile uint8_t *)0x10000000u)
/* Where the reference machine is told to end. */
#define STOP (*(volatile uint32_t *)0x100000u)

static uint8_t bytes[4096];
static uint32_t words[512];
static volatile uint32_t result;

static uint32_t crc32(const uint8_t *data, uint32_t length)
{
    uint32_t crc = 0xFFFFFFFFu;
    for (uint32_t at = 0; at < length; at++) {
        crc ^= data[at];
        for (int bit = 0; bit < 8; bit++) {
            crc = (crc >> 1) ^ (0xEDB88320u & (0u - (crc & 1u)));
        }
    }
    return ~crc;
}

static void sort(uint32_t *values, uint32_t count)
{
    for (uint32_t gap = count / 2; gap > 0; gap /= 2) {
        for (uint32_t at = gap; at < count; at++) {
            uint32_t value = values[at];
            uint32_t to = at;
            while (to >= gap && values[to - gap] > value) {
                values[to] = values[to - gap];
                to -= gap;
            }
            values[to] = value;
        }
    }
}

static uint32_t sieve(void)
{
    uint32_t primes = 0;
    for (uint32_t at = 0; at < sizeof bytes; at++) {
        bytes[at] = 1;
    }
    for (uint32_t at = 2; at < sizeof bytes; at++) {
        if (bytes[at]) {
            primes++;
            for (uint32_t multiple = at * 2; multiple < sizeof bytes; multiple += at) {
                bytes[multiple] = 0;
            }
        }
    }
    return primes;
}

static uint32_t divide(uint32_t seed)
{
    uint32_t sum = 0;
    for (uint32_t at = 1; at < 2000; at++) {
        seed = seed * 1664525u + 1013904223u;
        sum += seed / at + seed % (at + 7);
    }
    return sum;
}

void work(void)
{
    for (uint32_t round = 0; round < ROUNDS; round++) {
        for (uint32_t at = 0; at < 512; at++) {
            words[at] = (at + round) * 2654435761u;
        }
        sort(words, 512);
        result += sieve() + crc32(bytes, sizeof bytes) + divide(round) + words[100];
    }
    for (const char *text = "done\n"; *text; text++) {
        CONSOLE = (uint8_t)*text;
        /* Longer than a character takes on the line; the two machines have the line status at different places. */
        for (volatile uint32_t wait = 0; wait < 10000; wait++) {
        }
    }
    STOP = 0x5555u;
    for (;;) {
    }
}

__attribute__((naked, section(".start"))) void _start(void)
{
    __asm__("la sp, _start + 0x80000\n j work");
}
