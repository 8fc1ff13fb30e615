// IEEE 1800-2017 clause 7.9: counting by a key, and what `exists` and `delete` do
module t;
  int count [string]; logic [7:0] mem [int];
  string words [5] = '{"b", "a", "b", "c", "b"};
  initial begin
    foreach (words[i]) count[words[i]]++;
    foreach (count[k]) $write("%s%0d ", k, count[k]);
    count.delete("b"); $display("%0d %0d %0d", count.size(), count.exists("b"), count.exists("a"));
    mem[1000] = 5; mem[-1] = 6; mem[7] += 1;
    foreach (mem[k]) $write("%0d ", k);
    $display("%0d %b", mem[1000], mem[7]);
  end
endmodule
//> a1 b3 c1 2 0 1
//> -1 7 1000 5 xxxxxxxx
