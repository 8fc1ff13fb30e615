// IEEE 1800-2017 clause 21.2.1.3: `%0d` takes as little room as it needs, `%4d` four places
module t;
  logic [7:0] a = 5;
  logic signed [7:0] s = -5;
  initial begin
    $display("[%d] [%0d] [%4d] [%-4d]", a, a, a, a);
    $display("[%d] [%0d]", s, s);
    $display("[%h] [%0h] [%4h] [%b] [%0b]", a, a, a, a, a);
    $display("[%s] [%5s] [%-5s]", "ab", "ab", "ab");
  end
endmodule
//> [  5] [5] [   5] [5   ]
//> [  -5] [-5]
//> [05] [5] [0005] [00000101] [101]
//> [ab] [   ab] [ab   ]
