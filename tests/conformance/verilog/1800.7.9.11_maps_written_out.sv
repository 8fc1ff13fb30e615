// IEEE 1800-2017 clause 7.9.11: a map is written out by its keys, with what is read elsewhere
module t;
  int m[string] = '{"a": 1, "b": 2, default: -1};
  initial begin
    $display("%0d %0d %0d %0d", m["a"], m["b"], m["c"], m.size());
    $display("%p", m);
  end
endmodule
//> 1 2 -1 2
//> '{"a":1, "b":2}
