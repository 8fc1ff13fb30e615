// IEEE 1800-2017 clause 12.5.2: a `case` of 1 takes the first arm that is true
module t;
  logic [2:0] r = 3'b110;
  initial case (1'b1)
    r[0]: $display("zero");
    r[1]: $display("one");
    r[2]: $display("two");
  endcase
endmodule
//> one
