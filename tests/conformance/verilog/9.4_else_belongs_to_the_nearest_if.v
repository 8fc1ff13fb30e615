// IEEE 1364-2005 clause 9.4: without begin and end
module t;
  initial
    if (1)
      if (0) $display("a");
      else $display("b");
endmodule
//> b
