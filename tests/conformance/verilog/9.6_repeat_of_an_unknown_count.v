// IEEE 1364-2005 clause 9.6: goes round not at all
module t;
  initial begin
    repeat (1'bx) $display("never");
    $display("end");
  end
endmodule
//> end
