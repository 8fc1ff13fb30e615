// IEEE 1364-2005 clause 12.4.2: by a constant
module t;
  parameter k = 2;
  generate
    case (k)
      1: initial $display("one");
      2: initial $display("two");
      default: initial $display("other");
    endcase
  endgenerate
endmodule
//> two
