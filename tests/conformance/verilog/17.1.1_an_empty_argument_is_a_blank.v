// IEEE 1364-2005 clause 17.1.1: between two commas
module t;
  initial $display("a",,"b");
endmodule
//> a b
