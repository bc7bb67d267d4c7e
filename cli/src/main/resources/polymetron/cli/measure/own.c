/* Writes a register at 0x10010000 and reads it back, TURNS times; says "d" on a 16550 at 0x10000000, or "w" for a wrong value. */
#include <stdint.h>

#define REGISTER (*(volatile uint32_t *)0x10010000u)
#define CONSOLE (*(volatile uint8_t *)0x10000000u)

void _start(void)
{
    uint8_t said = 'd';
    for (uint32_t turn = TURNS; turn != 0; turn--) {
        REGISTER = turn;
        if (REGISTER != turn) {
            said = 'w';
        }
    }
    CONSOLE = said;
    for (;;) {
    }
}
