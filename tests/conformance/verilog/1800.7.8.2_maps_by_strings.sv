// IEEE 1800-2017 clause 7.8.2: an array by strings has an element for each key that was written, in their order
module t;
  int m[string];
  string k;
  initial begin
    m["pump"] = 3;
    m["gate"] = 1;
    m["pump"] += 4;
    $display("%0d %0d %0d", m.size(), m["pump"], m["none"]);
    foreach (m[s]) $display("%s %0d", s, m[s]);
    $display("%b %b", m.exists("gate"), m.exists("none"));
    m.delete("gate");
    $display("%0d", m.num());
  end
endmodule
//> 2 7 0
//> gate 1
//> pump 7
//> 00000000000000000000000000000001 00000000000000000000000000000000
//> 1
