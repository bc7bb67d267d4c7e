package polymetron.handoff;

/** The first instructions of a program: stack, variables, then {@code main}. */
final class StartupCode implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, String baseName, String fingerprint) {
        String text =
                """
                /*
                 * %s: from reset to main.
                 * Platform fingerprint %s. Made by Polymetron; changes here are lost.
                 */
                    .section .init, "ax"
                    .globl _start
                _start:
                    .option push
                    .option norelax
                    la gp, __global_pointer$
                    .option pop
                    la sp, __stack_top

                    la a0, __data_start
                    la a1, __data_end
                    la a2, __data_load
                    beq a0, a2, 2f
                1:  bgeu a0, a1, 2f
                    lw a3, 0(a2)
                    sw a3, 0(a0)
                    addi a0, a0, 4
                    addi a2, a2, 4
                    j 1b

                2:  la a0, __bss_start
                    la a1, __bss_end
                3:  bgeu a0, a1, 4f
                    sw zero, 0(a0)
                    addi a0, a0, 4
                    j 3b

                4:  la a0, trap_entry
                    csrw mtvec, a0
                    li a0, 0
                    li a1, 0
                    call main
                5:  wfi
                    j 5b

                /* Saves what C may change, calls trap_handler, and returns; programs may bring their own. */
                    .section .text.trap_entry, "ax"
                    .weak trap_entry
                    .balign 4
                trap_entry:
                    addi sp, sp, -64
                    sw ra, 0(sp)
                    sw t0, 4(sp)
                    sw t1, 8(sp)
                    sw t2, 12(sp)
                    sw a0, 16(sp)
                    sw a1, 20(sp)
                    sw a2, 24(sp)
                    sw a3, 28(sp)
                    sw a4, 32(sp)
                    sw a5, 36(sp)
                    sw a6, 40(sp)
                    sw a7, 44(sp)
                    sw t3, 48(sp)
                    sw t4, 52(sp)
                    sw t5, 56(sp)
                    sw t6, 60(sp)
                    csrr a0, mcause
                    csrr a1, mepc
                    csrr a2, mtval
                    call trap_handler
                    lw ra, 0(sp)
                    lw t0, 4(sp)
                    lw t1, 8(sp)
                    lw t2, 12(sp)
                    lw a0, 16(sp)
                    lw a1, 20(sp)
                    lw a2, 24(sp)
                    lw a3, 28(sp)
                    lw a4, 32(sp)
                    lw a5, 36(sp)
                    lw a6, 40(sp)
                    lw a7, 44(sp)
                    lw t3, 48(sp)
                    lw t4, 52(sp)
                    lw t5, 56(sp)
                    lw t6, 60(sp)
                    addi sp, sp, 64
                    mret

                /* Stays where it is when the program has no handler of its own. */
                    .section .text.trap_handler, "ax"
                    .weak trap_handler
                trap_handler:
                    j trap_handler

                /* Says which platform the program is linked for; takes no memory. */
                    .section .note.platform, "", @note
                    .balign 4
                    .long 2f - 1f, 4f - 3f, 1
                1:  .asciz "polymetron"
                2:  .balign 4
                3:  .ascii "%s"
                4:
                """
                        .formatted(
                                CText.safe(view.platform().platform().name()),
                                fingerprint,
                                fingerprint);
        return new HandoffFile("start.S", "start-up code", text);
    }
}
