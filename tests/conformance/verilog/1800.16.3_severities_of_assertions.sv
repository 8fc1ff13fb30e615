// IEEE 1800-2017 clause 16.3: what stands behind `else` says how severe it is
module t;
  initial begin
    assert (0) else $warning("low by %0d", 3);
    assert (0) else $info("just so");
    assert (1) else $fatal(1, "never");
    $display("goes on");
  end
endmodule
//> warning: low by 3
//> info: just so
//> goes on
