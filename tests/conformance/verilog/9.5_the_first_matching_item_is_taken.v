// IEEE 1364-2005 clause 9.5: even when a later one matches too
module t;
  initial
    case (2'd1)
      2'd0, 2'd1: $display("first");
      2'd1: $display("second");
    endcase
endmodule
//> first
