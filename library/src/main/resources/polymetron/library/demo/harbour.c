/*
 * Firmware of a harbour light: each press of a button chooses the next character that the light shows.
 *
 * Their names are those of rhythmic lights at sea; how long they are is made up. Two blocks do the work: one
 * shows a pattern of sixteen steps, the other counts presses without their bouncing.
 */
#include <stdint.h>

#include PLATFORM_HEADER
#include "drivers/light_sequencer.h"
#include "drivers/press_counter.h"
#include "drivers/uart.h"

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
int main(void);

struct character {
    const char *name;
    uint32_t steps;
};

static const struct character characters[] = {
    {"fixed", 0xFFFFu},
    {"flashing", 0x0003u},
    {"group flashing, two", 0x0033u},
    {"isophase", 0x00FFu},
    {"occulting", 0x0FFFu},
};

#define CHARACTERS (sizeof characters / sizeof characters[0])

static void print(const char *text)
{
    while (*text != '\0') {
        if (*text == '\n') {
            uart_send(CONSOLE_BASE, '\r');
        }
        uart_send(CONSOLE_BASE, *text);
        text++;
    }
}

static void show(uint32_t number)
{
    const struct character *chosen = &characters[number % CHARACTERS];
    /* Off first: each character begins with its first step. */
    light_sequencer_set_control_enable(LIGHT_BASE, 0u);
    light_sequencer_set_pattern_steps(LIGHT_BASE, chosen->steps);
    light_sequencer_set_control_enable(LIGHT_BASE, 1u);
    print(chosen->name);
    print("\n");
}

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
{
    (void)cause;
    (void)pc;
    (void)value;
    print("stopped by an exception\n");
    for (;;) {
    }
}

int main(void)
{
    uint32_t shown = 0u;
    uart_set_divisor(CONSOLE_BASE, CONSOLE_DIVISOR);
    print("Harbour Light\n");
    show(shown);
    for (;;) {
        uint32_t presses = press_counter_presses_number(PRESSES_BASE);
        if (presses != shown) {
            shown = presses;
            show(shown);
        }
    }
}
