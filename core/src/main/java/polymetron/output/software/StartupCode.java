package polymetron.output.software;

import java.util.List;
import java.util.Optional;
import polymetron.elaborate.TargetRange;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.software.Hart;
import polymetron.software.MachineTimer;
import polymetron.software.SoftwareView;
import polymetron.text.Escape;
import polymetron.text.TextWriter;

/**
 * The first instructions of a program: stack, variables, constructors, then {@code main}. Where several harts share the
 * program, the first does all that; the others wait for the software interrupt by which it releases them, and go on in
 * {@code hart_main}, each with a stack of its own.
 */
final class StartupCode implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        return new HandoffFile(
                names.fixed(view, "start", ".S"), "start-up code", new Text(view, names).write());
    }

    private static final class Text {
        private final SoftwareView view;
        private final HandoffNames names;
        private final TextWriter out = TextWriter.indentedBy("    ");

        private Text(SoftwareView view, HandoffNames names) {
            this.view = view;
            this.names = names;
        }

        private String write() {
            add(
                    """
                    /*
                     * %s: from reset to main%s.
                     * Platform fingerprint %s. Made by Polymetron; changes here are lost.
                     */
                        .section .init, "ax"
                        .globl _start
                    _start:
                        .option push
                        .option norelax
                        la gp, __global_pointer$
                        .option pop
                    """
                            .formatted(
                                    Escape.c(view.platform().platform().name()),
                                    names.hasSeveral() ? ", for " + view.name() : "",
                                    names.fingerprint()));
            if (view.harts().size() > 1) {
                branches();
            }
            add(
                    """
                        la sp, __stack_top
                        la a0, trap_entry
                        csrw mtvec, a0

                        /* Initial values: from, to and size of each part, out of the linker script's table. */
                        la s0, __copy_table_start
                        la s1, __copy_table_end
                    1:  bgeu s0, s1, 4f
                        lw a0, 0(s0)
                        lw a1, 4(s0)
                        lw a2, 8(s0)
                        addi s0, s0, 12
                        beq a0, a1, 1b
                        add a2, a2, a1
                    2:  bgeu a1, a2, 1b
                        lw a3, 0(a0)
                        sw a3, 0(a1)
                        addi a0, a0, 4
                        addi a1, a1, 4
                        j 2b

                    4:  la a0, __bss_start
                        la a1, __bss_end
                    5:  bgeu a0, a1, 6f
                        sw zero, 0(a0)
                        addi a0, a0, 4
                        j 5b

                        /* Constructors. */
                    6:  la s0, __preinit_array_start
                        la s1, __preinit_array_end
                        call run_table
                        la s0, __init_array_start
                        la s1, __init_array_end
                        call run_table
                    """);
            if (view.harts().size() > 1) {
                releases();
            }
            add(
                    """

                        li a0, 0
                        li a1, 0
                        call main
                    7:  wfi
                        j 7b

                    run_table:
                        mv s2, ra
                    1:  bgeu s0, s1, 2f
                        lw a0, 0(s0)
                        addi s0, s0, 4
                        jalr a0
                        j 1b
                    2:  jr s2
                    """);
            if (view.harts().size() > 1) {
                others();
            }
            add(COMMON.formatted(names.fingerprint()));
            return out.text();
        }

        private void add(String text) {
            out.lines(text);
        }

        /** Each hart goes its own way by its number. */
        private void branches() {
            add("\n    /* Each hart finds out which it is. */\n    csrr a0, mhartid\n");
            List<Hart> harts = view.harts();
            for (int index = 0; index < harts.size(); index++) {
                add(
                        "    li a1, %s\n    beq a0, a1, start_hart%s\n"
                                .formatted(harts.get(index).id(), index));
            }
            add(
                    "    /* A hart that is not in the platform. */\n"
                            + "1:  wfi\n"
                            + "    j 1b\n\n"
                            + "start_hart0:\n");
        }

        private void releases() {
            List<Hart> harts = view.harts();
            for (int index = 1; index < harts.size(); index++) {
                Optional<Long> register = softwareInterrupt(harts.get(index));
                if (register.isPresent()) {
                    add(
                            "\n    /* Releases %s. */\n    fence\n    li a0, 0x%08X\n    li a1, 1\n    sw a1, 0(a0)\n"
                                    .formatted(harts.get(index).label(), register.get()));
                }
            }
        }

        private void others() {
            List<Hart> harts = view.harts();
            for (int index = 1; index < harts.size(); index++) {
                Optional<Long> register = softwareInterrupt(harts.get(index));
                add("\nstart_hart%s:\n".formatted(index));
                if (register.isEmpty()) {
                    add(
                            "    /* No software interrupt reaches %s, so nothing can release it. */\n1:  wfi\n    j 1b\n"
                                    .formatted(harts.get(index).label()));
                    continue;
                }
                add(
                        """
                            la sp, __stack_top
                            lui a0, %%hi(__stack_size)
                            addi a0, a0, %%lo(__stack_size)
                            li a1, %s
                        1:  sub sp, sp, a0
                            addi a1, a1, -1
                            bnez a1, 1b
                            la a0, trap_entry
                            csrw mtvec, a0
                            /* Waits for its software interrupt, which is not taken as one. */
                            csrwi mie, 8
                        2:  wfi
                            csrr a0, mip
                            andi a0, a0, 8
                            beqz a0, 2b
                            csrwi mie, 0
                            li a0, 0x%08X
                            sw zero, 0(a0)
                            fence
                            .word 0x0000100F /* fence.i, which some assemblers take for an extension */
                            li a0, %s
                            call hart_main
                        3:  wfi
                            j 3b
                        """
                                .formatted(index, register.get(), index));
            }
            add(
                    """

                    /* What a hart but the first does: the program's own hart_main(index), or nothing. */
                        .section .text.hart_main, "ax"
                        .weak hart_main
                    hart_main:
                        wfi
                        j hart_main
                    """);
        }

        /** Address of the register that interrupts a hart, as the program sees it. */
        private Optional<Long> softwareInterrupt(Hart hart) {
            for (MachineTimer timer : MachineTimer.of(view.platform())) {
                int index = timer.signalled().indexOf(hart);
                Optional<TargetRange> registers =
                        view.targets().stream()
                                .filter(target -> target.ref().equals(timer.registers()))
                                .findFirst();
                if (index >= 0 && registers.isPresent()) {
                    return Optional.of(registers.get().range().base() + 4L * index);
                }
            }
            return Optional.empty();
        }
    }

    private static final String COMMON =
            """

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

            /* C++ registers the destructors of its variables; main never returns, so none is kept. */
                .section .text.__cxa_atexit, "ax"
                .weak __cxa_atexit
            __cxa_atexit:
                li a0, 0
                ret
                .weak __dso_handle
                .set __dso_handle, 0

            /* Says which platform the program is linked for; takes no memory. */
                .section .note.platform, "", @note
                .balign 4
                .long 2f - 1f, 4f - 3f, 1
            1:  .asciz "polymetron"
            2:  .balign 4
            3:  .ascii "%s"
            4:
            """;
}
