// IEEE 1800-2017 clause 25.3.3: a port that takes any interface, and one of another interface
interface one;
  logic v;
endinterface
interface two;
  logic v;
endinterface
module m (interface b, output logic y);
  assign y = ~b.v;
endmodule
module t;
  one a ();
  two b ();
  logic p, q;
  m u (a, p);
  m w (b, q);
  initial begin
    a.v = 0;
    b.v = 1;
    #1 $display("%b %b", p, q);
  end
endmodule
//> 1 0
