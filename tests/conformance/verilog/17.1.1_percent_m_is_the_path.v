// IEEE 1364-2005 clause 17.1.1: of the scope
module m;
  initial begin : here
    $display("%m");
  end
endmodule
module t;
  m u();
endmodule
//> t.u.here
