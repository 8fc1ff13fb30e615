// IEEE 1800-2017 clause 6.16: elements, arguments, results, conditions
module t;
  string names [3];
  int n = 1;
  function automatic string marked(string s, int k);
    return k > 1 ? {s, "!"} : s;
  endfunction
  initial begin
    names = '{"shut", "half", "open"};
    foreach (names[i]) $write("%s ", marked(names[i], i));
    $display("%s", n == 1 ? names[n] : "none");
    case (names[2])
      "shut": $display("a");
      "open": $display("b");
    endcase
  end
endmodule
//> shut half open! half
//> b
