/*
 * Runs every RV32IM instruction over many operands and prints a checksum for each. The same source runs on the
 * bench and on the reference simulator; only the UART's register distance and the way to stop differ.
 */
#include <stdint.h>

#define UART ((volatile uint8_t *)0x10000000u)

static void put(char character)
{
    while ((UART[5 * UART_DISTANCE] & 0x20u) == 0u) {
    }
    UART[0] = (uint8_t)character;
}

static void print(const char *text)
{
    while (*text != '\0') {
        put(*text++);
    }
}

static void show(const char *name, uint32_t value)
{
    print(name);
    put(' ');
    for (int shift = 28; shift >= 0; shift -= 4) {
        put("0123456789abcdef"[value >> shift & 15u]);
    }
    put('\n');
}

static const uint32_t values[] = {
    0u, 1u, 2u, 3u, 4u, 5u, 7u, 31u, 32u, 33u, 0x55u, 0x7Fu, 0x80u, 0xFFu, 0x7FFu, 0x800u, 0x7FFFu, 0x8000u, 0xFFFFu,
    0x12345678u, 0x55555555u, 0x7FFFFFFEu, 0x7FFFFFFFu, 0x80000000u, 0x80000001u, 0x87654321u, 0xAAAAAAAAu,
    0xDEADBEEFu, 0xFFFF8000u, 0xFFFFFF80u, 0xFFFFFFFEu, 0xFFFFFFFFu
};
#define COUNT (sizeof values / sizeof values[0])

#define REGISTERS(op) \
    do { \
        uint32_t sum = 1u; \
        for (uint32_t i = 0; i < COUNT; i++) \
            for (uint32_t j = 0; j < COUNT; j++) { \
                uint32_t result; \
                __asm__ volatile(op " %0, %1, %2" : "=r"(result) : "r"(values[i]), "r"(values[j])); \
                sum = sum * 31u + result; \
            } \
        show(op, sum); \
    } while (0)

#define ONE_IMMEDIATE(op, number) \
    for (uint32_t i = 0; i < COUNT; i++) { \
        uint32_t result; \
        __asm__ volatile(op " %0, %1, " #number : "=r"(result) : "r"(values[i])); \
        sum = sum * 31u + result; \
    }

#define IMMEDIATES(op) \
    do { \
        uint32_t sum = 1u; \
        ONE_IMMEDIATE(op, -2048) ONE_IMMEDIATE(op, -1) ONE_IMMEDIATE(op, 0) ONE_IMMEDIATE(op, 1) \
        ONE_IMMEDIATE(op, 85) ONE_IMMEDIATE(op, 1365) ONE_IMMEDIATE(op, 2047) \
        show(op, sum); \
    } while (0)

#define SHIFTS(op) \
    do { \
        uint32_t sum = 1u; \
        ONE_IMMEDIATE(op, 0) ONE_IMMEDIATE(op, 1) ONE_IMMEDIATE(op, 7) ONE_IMMEDIATE(op, 16) ONE_IMMEDIATE(op, 31) \
        show(op, sum); \
    } while (0)

#define BRANCHES(op) \
    do { \
        uint32_t sum = 1u; \
        for (uint32_t i = 0; i < COUNT; i++) \
            for (uint32_t j = 0; j < COUNT; j++) { \
                uint32_t result; \
                __asm__ volatile( \
                    "li %0, 5\n" op " %1, %2, 1f\nli %0, 9\n1: addi %0, %0, 1" \
                    : "=&r"(result) : "r"(values[i]), "r"(values[j])); \
                sum = sum * 31u + result; \
            } \
        show(op, sum); \
    } while (0)

static uint32_t memory[64];

#define LOADS(op, step) \
    do { \
        uint32_t sum = 1u; \
        for (uint32_t at = 8; at < 128; at += step) { \
            uint32_t result; \
            uint32_t address = (uint32_t)(uintptr_t)memory + at; \
            __asm__ volatile(op " %0, 0(%1)" : "=r"(result) : "r"(address) : "memory"); \
            sum = sum * 31u + result; \
            __asm__ volatile(op " %0, -8(%1)" : "=r"(result) : "r"(address) : "memory"); \
            sum = sum * 31u + result; \
        } \
        show(op, sum); \
    } while (0)

#define STORES(op, step) \
    do { \
        for (uint32_t at = 8; at < 128; at += step) \
            __asm__ volatile( \
                op " %0, -4(%1)" : : "r"(values[at % COUNT]), "r"((uint32_t)(uintptr_t)memory + at) : "memory"); \
        uint32_t sum = 1u; \
        for (uint32_t at = 0; at < 32; at++) \
            sum = sum * 31u + memory[at]; \
        show(op, sum); \
    } while (0)

static volatile uint32_t trap_cause;
static volatile uint32_t trap_value;
static volatile uint32_t traps;

void trap_handler(uint32_t cause, uint32_t pc, uint32_t value);
void trap_handler(uint32_t cause, uint32_t pc, uint32_t value)
{
    trap_cause = cause;
    trap_value = value;
    traps++;
    /* A jump that went wrong is left by the return address; everything else is stepped over. */
    if (cause == 0u || cause == 1u) {
        uint32_t back;
        __asm__ volatile("csrr %0, mscratch" : "=r"(back));
        __asm__ volatile("csrw mepc, %0" : : "r"(back));
    } else {
        __asm__ volatile("csrw mepc, %0" : : "r"(pc + 4u));
    }
}

static void jumps(void)
{
    uint32_t result;
    uint32_t sum = 1u;
    __asm__ volatile("jal %0, 1f\n1: auipc t0, 0\nsub %0, t0, %0" : "=r"(result) : : "t0");
    sum = sum * 31u + result;
    __asm__ volatile("auipc t0, 0\njalr %0, 13(t0)\nnop\nauipc t1, 0\nsub %0, t1, %0" : "=r"(result) : : "t0", "t1");
    sum = sum * 31u + result;
    /* The return address may go into the register that holds the target. */
    __asm__ volatile("auipc t0, 0\naddi t0, t0, 16\njalr t0, 0(t0)\nnop\nauipc t1, 0\nsub %0, t1, t0"
                     : "=r"(result) : : "t0", "t1");
    show("jumps", sum * 31u + result);
    __asm__ volatile("lui %0, 0xFFFFF" : "=r"(result));
    show("lui", result);
    __asm__ volatile("auipc %0, 0x80000\nauipc t0, 0\nsub %0, %0, t0" : "=r"(result) : : "t0");
    show("auipc", result);
    __asm__ volatile("addi x0, %1, 7\nmv %0, x0" : "=r"(result) : "r"(sum));
    show("x0", result);
}

static void registers(void)
{
    uint32_t sum = 1u;
    uint32_t old;
    __asm__ volatile("csrrw %0, mscratch, %1" : "=r"(old) : "r"(0x12345678u));
    __asm__ volatile("csrrs %0, mscratch, %1" : "=r"(old) : "r"(0x0F0F0F0Fu));
    sum = sum * 31u + old;
    __asm__ volatile("csrrc %0, mscratch, %1" : "=r"(old) : "r"(0x00FF00FFu));
    sum = sum * 31u + old;
    __asm__ volatile("csrrwi %0, mscratch, 21" : "=r"(old));
    sum = sum * 31u + old;
    __asm__ volatile("csrrsi %0, mscratch, 10" : "=r"(old));
    sum = sum * 31u + old;
    __asm__ volatile("csrrci %0, mscratch, 3" : "=r"(old));
    sum = sum * 31u + old;
    __asm__ volatile("csrr %0, mscratch" : "=r"(old));
    show("csr", sum * 31u + old);
    __asm__ volatile("csrr %0, mhartid" : "=r"(old));
    show("mhartid", old);
}

static void trap(const char *name, uint32_t base)
{
    show(name, trap_cause);
    show("value", trap_value - base);
    show("traps", traps);
}

static void faults(void)
{
    uint32_t result = 77u;
    __asm__ volatile("ecall" : : : "memory");
    trap("ecall", 0);
    uint32_t here;
    __asm__ volatile("auipc %0, 0\nebreak" : "=r"(here) : : "memory");
    show("ebreak", trap_cause);
    __asm__ volatile("lw %0, 0(%1)" : "+r"(result) : "r"(0x00FFFFF0u) : "memory");
    trap("load fault", 0);
    show("kept", result);
    __asm__ volatile("sw %0, 0(%1)" : : "r"(1), "r"(0x00FFFFF0u) : "memory");
    trap("store fault", 0);
    __asm__ volatile(".word 0xFFFFFFFF" : : : "memory");
    show("illegal", trap_cause);
    __asm__ volatile("csrw mhartid, zero" : : : "memory");
    show("read-only csr", trap_cause);
    __asm__ volatile("csrr %0, 0x3A5" : "+r"(result) : : "memory");
    /* Target bit 1 set without compressed instructions: the jump itself traps (Unprivileged ISA, 2.5). */
    __asm__ volatile("la t0, 1f\ncsrw mscratch, t0\naddi t0, t0, 2\njr t0\n1:" : : : "t0", "memory");
    show("misaligned jump", trap_cause);
    __asm__ volatile("la t0, 1f\ncsrw mscratch, t0\nli t0, 0x00FFFFF0\njr t0\n1:" : : : "t0", "memory");
    trap("fetch fault", 0);
}

static void state(void)
{
    uint32_t status;
    __asm__ volatile("csrsi mstatus, 8\ncsrr %0, mstatus" : "=r"(status));
    show("mstatus", status & 0x88u);
    __asm__ volatile("ecall\ncsrr %0, mstatus" : "=r"(status) : : "memory");
    show("after trap", status & 0x88u);
    __asm__ volatile("csrci mstatus, 8\necall\ncsrr %0, mstatus" : "=r"(status) : : "memory");
    show("after quiet trap", status & 0x88u);
}

int main(void)
{
    REGISTERS("add"); REGISTERS("sub"); REGISTERS("sll"); REGISTERS("slt"); REGISTERS("sltu");
    REGISTERS("xor"); REGISTERS("srl"); REGISTERS("sra"); REGISTERS("or"); REGISTERS("and");
    REGISTERS("mul"); REGISTERS("mulh"); REGISTERS("mulhsu"); REGISTERS("mulhu");
    REGISTERS("div"); REGISTERS("divu"); REGISTERS("rem"); REGISTERS("remu");
    IMMEDIATES("addi"); IMMEDIATES("slti"); IMMEDIATES("sltiu"); IMMEDIATES("xori"); IMMEDIATES("ori");
    IMMEDIATES("andi"); SHIFTS("slli"); SHIFTS("srli"); SHIFTS("srai");
    BRANCHES("beq"); BRANCHES("bne"); BRANCHES("blt"); BRANCHES("bge"); BRANCHES("bltu"); BRANCHES("bgeu");
    for (uint32_t at = 0; at < 64; at++) {
        memory[at] = at * 0x9E3779B9u;
    }
    LOADS("lb", 1); LOADS("lbu", 1); LOADS("lh", 2); LOADS("lhu", 2); LOADS("lw", 4);
    STORES("sb", 1); STORES("sh", 2); STORES("sw", 4);
    jumps();
    __asm__ volatile("fence\nfence.i" : : : "memory");
    registers();
    faults();
    state();
    print("done\n");
    STOP;
    for (;;) {
    }
}
