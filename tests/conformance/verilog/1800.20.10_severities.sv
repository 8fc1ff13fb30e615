// IEEE 1800-2017 clause 20.10 (exit 1): severities as later editions define them
module t; initial begin $info("about %0d", 3); $warning("careful"); $error("wrong"); #1 $fatal(1, "gone at %0t", $time); $display("never"); end endmodule
//> info: about 3
//> warning: careful
//> error: wrong
//> fatal: gone at 1
