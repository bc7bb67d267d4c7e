/*
 * What a chip says of itself; erase, pages across their borders, what is there already; reads of the memory range meanwhile and
 * afterwards, one after the other and anywhere; and the interrupt.
 */
#include "drivers/flash_controller.h"

static const volatile uint32_t *const words = (const volatile uint32_t *)FLASH_MEMORY_BASE;

static void exercise(void)
{
    uint8_t bytes[24];
    exercise_hex(flash_controller_identity(FLASH_REGISTERS_BASE));
    exercise_hex(words[0x400]);
    for (unsigned at = 0; at < sizeof bytes; at++) {
        bytes[at] = (uint8_t)(at * 5u + 1u);
    }
    flash_controller_erase(FLASH_REGISTERS_BASE, 0x1010u);
    exercise_expect("erased", words[0x401], 0xFFFFFFFFu);
    flash_controller_write(FLASH_REGISTERS_BASE, 0x10F8u, bytes, sizeof bytes);
    for (unsigned at = 0; at < 8u; at++) {
        exercise_hex(words[0x43Du + at]);
    }
    exercise_expect("anywhere", words[0x440], 0x38332E29u);
    exercise_expect("before it", words[0x43E], 0x100B0601u);
    bytes[0] = 0xF0u;
    flash_controller_write(FLASH_REGISTERS_BASE, 0x1101u, bytes, 1u);
    exercise_expect("only zeros", words[0x440], 0x38332029u);
    flash_controller_take(FLASH_REGISTERS_BASE);
    flash_controller_command(FLASH_REGISTERS_BASE, 0x06u);
    exercise_expect("not busy", flash_controller_is_busy(FLASH_REGISTERS_BASE), 0u);
    flash_controller_command(FLASH_REGISTERS_BASE, 0x04u);
    flash_controller_select(FLASH_REGISTERS_BASE, true);
    flash_controller_address(FLASH_REGISTERS_BASE, 0x20u, 0x21u, 0x1000u);
    flash_controller_select(FLASH_REGISTERS_BASE, false);
    exercise_expect("not enabled", flash_controller_is_busy(FLASH_REGISTERS_BASE), 0u);
    (void)flash_controller_take_done(FLASH_REGISTERS_BASE);
    flash_controller_interrupt(FLASH_REGISTERS_BASE, true);
    *flash_controller_register(FLASH_REGISTERS_BASE, 8u) = 0u;
    exercise_wait(FLASH_REGISTERS_IRQ_PLIC_SOURCE);
    exercise_expect("done", flash_controller_take_done(FLASH_REGISTERS_BASE), 1u);
    exercise_done(FLASH_REGISTERS_IRQ_PLIC_SOURCE);
    flash_controller_give_back(FLASH_REGISTERS_BASE);
    exercise_expect("still there", words[0x440], 0x38332029u);
    if (sizeof(uintptr_t) == 4u && FLASH_MEMORY_SIZE > 0x1000000u) {
        flash_controller_erase(FLASH_REGISTERS_BASE, 0x1002000u);
        flash_controller_write(FLASH_REGISTERS_BASE, 0x1002000u, bytes, 4u);
        exercise_hex(words[0x1002000u / 4u]);
    }
}
