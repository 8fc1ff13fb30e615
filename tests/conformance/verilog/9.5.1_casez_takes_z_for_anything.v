// IEEE 1364-2005 clause 9.5.1: on either side
module t;
  reg [2:0] s;
  initial begin
    s = 3'b1z0;
    casez (s)
      3'b0??: $display("a");
      3'b110: $display("b");
    endcase
  end
endmodule
//> b
