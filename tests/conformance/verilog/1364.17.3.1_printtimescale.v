// IEEE 1364-2005 clause 17.3.1: the unit and the precision of a module are printed
`timescale 1ns / 10ps
module inner;
endmodule
`timescale 1us / 100ns
module t;
  inner u ();
  initial begin
    $printtimescale;
    $printtimescale(u);
  end
endmodule
//> Time scale of (t) is 1us / 100ns
//> Time scale of (t.u) is 1ns / 10ps
