// IEEE 1800-2017 clause 6.9, 6.11.3, 6.18, 6.3.1 and 6.8: signs of integer types, names for types, two-state variables
module t;
  byte unsigned b; byte sb; shortint unsigned s; int unsigned i; longint unsigned l; int si; integer unsigned g;
  typedef int ti; typedef byte unsigned tb; typedef int unsigned tu; typedef integer tg; typedef logic signed [4:0] tv; typedef tb again; typedef bit [3:0] tn; typedef real tr;
  ti a1; tb a2; tu a3; tg a4; tv a5; again a6; tn a7; tr a8;
  parameter byte unsigned P = 200; parameter byte Q = 200;
  logic x; bit two; bit [7:0] v; logic [7:0] four; bit [1:0] m [0:1];
  function int unsigned big(input byte unsigned n); return n - 201; endfunction
  function bit first(input bit n); return n; endfunction
  function automatic bit [2:0] kept(input int k); bit [2:0] own; if (k) own[0] = 1; return own; endfunction
  task give(output logic [3:0] o, output bit [3:0] p); o = 4'b1xz0; p = 4'b1xz0; endtask
  logic [3:0] o4; bit [3:0] o2, o3;
  initial begin
    b = 200; sb = 200; s = 16'hffff; i = 0; i = i - 1; l = -1; si = -1; g = -1;
    $display("%0d %0d %0d %0d %0d %0d %0d", b, sb, s, i, l, si, g);
    $display("%b%b%b %b%b", b > 100, i > 5, s > 0, sb > 100, si > 5);
    a1 = -5; a2 = 200; a3 = -1; a4 = -2; a5 = -3; a6 = 255; a8 = 1.5;
    $display("%0d %0d %0d %0d %0d %0d %0d %0.1f", a1, a2, a3, a4, a5, a6, a7, a8);
    $display("%0d %0d %0d %0d %0d %0d %0d", $bits(a1), $bits(a2), $bits(a3), $bits(a4), $bits(a5), $bits(a6), $bits(a7));
    $display("%0d %0d %0d", P, Q, big(200));
    two = x; v = 8'b1xz0_0101; $display("%b %b %b", two, v, two === 1'b0);
    {two, four[1:0], v[1:0]} = 5'bx_xz_xz; $display("%b %b %b", two, four[1:0], v);
    m[0] = 2'bx1; $display("%b %b", m[0], m[1]);
    $display("%b %b %b", first(1'bx), kept(1), kept(0));
    give(o4, o2); $display("%b %b", o4, o2); give(o2, o3); $display("%b %b", o2, o3);
    v <= 8'bxxxx_1111; #1 $display("%b", v);
    $display("%0d %0d %b %0d", int'(3.7), byte'(300), 4'(8'hab), signed'(4'hf));
    $display("%0d %0d %b", tb'(-1), unsigned'(-8'sd1), bit'(1'bx));
  end
endmodule
//> 200 -56 65535 4294967295 18446744073709551615 -1 4294967295
//> 111 00
//> -5 200 4294967295 -2 -3 255 0 1.5
//> 32 8 32 32 5 8 4
//> 200 -56 4294967295
//> 0 10000101 1
//> 0 xz 10000100
//> 01 00
//> 0 001 000
//> 1xz0 1000
//> 1000 1000
//> 00001111
//> 4 44 1011 -1
//> 255 255 0
