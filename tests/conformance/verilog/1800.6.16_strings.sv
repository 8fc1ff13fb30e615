// IEEE 1800-2017 clause 6.16: as long as they are, from literals, vectors and each other
module t;
  string s, u = "gate";
  logic [23:0] v = "abc";
  initial begin
    $display("[%s] %0d", s, s.len());
    s = {u, " ", "open"};
    $display("%s %0d [%12s] [%-12s]", s, s.len(), s, u);
    s = {3{"ab"}};
    $display("%s", s);
    s = string'(v);
    $display("%s %0d %b", s, s.len(), s == "abc");
    v = u;
    $display("%s", v);
  end
endmodule
//> [] 0
//> gate open 9 [   gate open] [gate        ]
//> ababab
//> abc 3 1
//> ate
