// IEEE 1800-2017 clause 7.8.3: keys may be negative and far apart
module t;
  string names[int];
  int k;
  initial begin
    names[1000000] = "far";
    names[-5] = "below";
    names[0] = "here";
    foreach (names[i]) $display("%0d %s", i, names[i]);
    void'(names.last(k));
    $display("%0d %0d", k, names.num());
    names.delete(0);
    $display("%0d %0d", names.exists(0), names.exists(-5));
  end
endmodule
//> -5 below
//> 0 here
//> 1000000 far
//> 1000000 3
//> 0 1
