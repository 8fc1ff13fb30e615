// IEEE 1364-2005 clause 9.5: as === does
module t;
  reg [1:0] s;
  initial begin
    s = 2'b1x;
    case (s)
      2'b10, 2'b11: $display("known");
      2'b1x: $display("unknown");
      default: $display("none");
    endcase
  end
endmodule
//> unknown
